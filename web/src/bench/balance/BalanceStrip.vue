<script setup lang="ts">
import { computed } from 'vue'
import type { Worksheet } from '@/api/client'
import { useBench } from '@/bench/bench'
import LevelGlass from './LevelGlass.vue'

const props = defineProps<{ sheet: Worksheet }>()
const bench = useBench()
const gauges = computed(() => Object.entries(props.sheet.gauges))
const written = computed(() => bench.doc?.reference?.kind === 'as_written' && !bench.plain)
const level = computed(() => gauges.value.filter(([, g]) => g.state === 'level').length)
const pulled = computed(() => gauges.value.flatMap(([, g]) => (g.pull && g.target !== undefined ? g.pull : [])))
const backToBase = () => pulled.value.forEach((p) => bench.pull(p))
</script>

<template>
  <section class="panel balance" aria-label="Balance">
    <header>
      <h2>Balance</h2>
      <button v-if="pulled.length" type="button" class="back" @click="backToBase">
        <b>{{ pulled.length === 1 ? pulled[0]!.text : `${pulled.length} pulled` }}</b><span>back to the {{ written ? 'recipe' : 'base' }}</span>
      </button>
      <p v-else>{{ level }} of {{ gauges.length }} on the level</p>
      <p v-if="!pulled.length" class="end key">
        <span><i class="sign ring" />{{ written ? 'as written' : 'base' }}</span
        ><span><i class="sign bar" />no offset</span><span><i class="sign level" />weighed</span>
      </p>
    </header>
    <div class="strip">
      <LevelGlass
        v-for="[key, g] in gauges"
        :key="key"
        :gauge="g"
        @why="bench.why = { figure: key }"
        @pull="(to) => g.pull && bench.pull(g.pull, to)"
        @step="(n) => g.pull && bench.pullOn(g.pull, n)" />
    </div>
  </section>
</template>

<style scoped>
.key {
  display: flex;
  gap: var(--s3);
  align-items: center;
}
.key span {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  white-space: nowrap;
}
.back {
  display: flex;
  gap: var(--s2);
  align-items: center;
  min-height: var(--touch);
  margin: -14px 0;
  padding: 0 var(--s2);
  border: 0;
  border-radius: var(--s2);
  background: var(--rim-wash);
  color: var(--rim);
  font-size: var(--t-mini);
  cursor: pointer;
  white-space: nowrap;
}
.back span {
  text-decoration: underline;
}
.strip {
  display: grid;
  grid-template-columns: repeat(7, minmax(0, 1fr));
  gap: var(--s1);
  padding: 2px var(--s3) 6px;
}
@media (max-width: 560px) {
  .strip {
    grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
  }
  .key {
    display: none;
  }
}
</style>
