<script setup lang="ts">
import { computed } from 'vue'
import { useMediaQuery } from '@vueuse/core'
import type { Worksheet } from '@/api/client'
import { unitsShown } from '@/parts/settings'
import { useBench } from '@/bench/bench'
import LevelGlass from './LevelGlass.vue'

const props = defineProps<{ sheet: Worksheet }>()
/** Standing in a row where the screen is wide, lying under one another where it is not. */
const lying = useMediaQuery('(max-width: 1199px)')
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
      <p v-else>{{ level }} of {{ gauges.length }} level with the {{ written ? 'recipe' : 'base' }}</p>
      <p class="key">
        <span><i class="sign ring" />{{ written ? 'as written' : 'base' }}</span
        ><span><i class="sign bar" />no offset</span><span><i class="sign level" />as {{ unitsShown === 'cups' ? 'measured' : 'weighed' }}</span>
      </p>
    </header>
    <div class="strip" :class="{ lying }">
      <LevelGlass
        v-for="[key, g] in gauges"
        :key="key"
        :gauge="g"
        :lying="lying"
        @why="bench.why = { figure: key }"
        @pull="(to) => g.pull && bench.pull(g.pull, to)"
        @step="(n) => g.pull && bench.pullOn(g.pull, n)" />
    </div>
  </section>
</template>

<style scoped>
.balance {
  container: balance / inline-size;
}
.balance > header {
  flex-wrap: wrap;
  align-items: center;
  gap: 0 var(--s3);
  padding-bottom: 2px;
}
.key {
  display: flex;
  gap: var(--s3);
  align-items: center;
  margin-left: auto;
}
.key span {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  white-space: nowrap;
}
.back {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--s2);
  align-items: center;
  min-height: var(--touch);
  margin: -12px 0;
  padding: 0 var(--s2);
  border: 0;
  border-radius: var(--s2);
  background: var(--rim-wash);
  color: var(--rim);
  font-size: var(--t-mini);
  cursor: pointer;
  line-height: 1.15;
}
.back span {
  text-decoration: underline;
}
.strip {
  display: grid;
  grid-template-columns: repeat(7, minmax(0, 1fr));
  gap: 2px;
  padding: 0 var(--s2) 6px;
}
.strip.lying {
  grid-template-columns: minmax(0, 1fr);
  padding: var(--s1) var(--s1) var(--s2);
  gap: 3px;
}
.balance:has(> .lying) .back {
  margin: 2px 0;
  flex-basis: 100%;
}
.balance:has(> .lying) .key {
  margin-left: 0;
  flex-wrap: wrap;
  gap: 0 9px;
}
</style>
