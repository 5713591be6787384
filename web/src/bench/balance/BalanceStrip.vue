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
</script>

<template>
  <section class="panel" aria-label="Balance">
    <header>
      <h2>Balance</h2>
      <p>{{ level }} of {{ gauges.length }} on the level</p>
      <p class="end key">
        <span><i class="sign ring" />{{ written ? 'as written' : 'base' }}</span
        ><span><i class="sign bar" />no offset</span><span><i class="sign level" />weighed</span>
      </p>
    </header>
    <div class="strip">
      <LevelGlass v-for="[key, g] in gauges" :key="key" :gauge="g" @why="bench.why = { figure: key }" />
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
