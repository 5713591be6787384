<script setup lang="ts">
import { computed } from 'vue'
import type { Worksheet } from '@/api/client'
import LevelGlass from './LevelGlass.vue'

const props = defineProps<{ sheet: Worksheet }>()
const gauges = computed(() => Object.values(props.sheet.gauges))
const level = computed(() => gauges.value.filter((g) => g.state === 'level').length)
</script>

<template>
  <section class="panel" aria-label="Balance">
    <header>
      <h2>Balance</h2>
      <p>{{ level }} of {{ gauges.length }} on the level</p>
      <p class="end key">
        <span><i class="sign ring" />base</span><span><i class="sign bar" />no offset</span><span><i class="sign level" />weighed</span>
      </p>
    </header>
    <div class="strip">
      <LevelGlass v-for="g in gauges" :key="g.label" :gauge="g" />
    </div>
  </section>
</template>

<style scoped>
.key { display: flex; gap: var(--s3); align-items: center; }
.key span { display: inline-flex; align-items: center; gap: 5px; white-space: nowrap; }
.strip { display: grid; grid-template-columns: repeat(auto-fit, minmax(min(230px, 100%), 1fr)); gap: var(--s2) var(--s4); padding: var(--s2) var(--s4) var(--s3); }
@media (max-width: 560px) {
  .key { display: none; }
}
</style>
