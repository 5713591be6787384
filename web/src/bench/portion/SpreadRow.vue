<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { useBench } from '@/bench/bench'

/** Who makes a portion as wide as it lies, and the way back to what form and thickness ask for. */
defineProps<{ spread: Schemas['PortionSpread'] }>()
const bench = useBench()
</script>

<template>
  <p class="spread" data-spread>
    <span>{{ spread.text }}</span>
    <el-button v-if="spread.chosen" @click="bench.spread()">As it was</el-button>
  </p>
</template>

<style scoped>
.spread {
  display: flex;
  align-items: center;
  gap: var(--s2);
  font-size: 14px;
  line-height: 1.2;
}
.spread span {
  flex: 1;
}
</style>
