<script setup lang="ts">
import { computed } from 'vue'

const props = defineProps<{ diameterMm?: number; colour?: string; size?: number; on?: { wideMm: number; colour: string } }>()

// Cards share one scale, so that a wide crêpe looks wider than a scone: 260 mm fill the square.
const widest = 260
const side = computed(() => props.size ?? 72)
const onR = computed(() => Math.min(side.value / 2 - 4, ((props.on?.wideMm ?? 0) / widest) * (side.value / 2 - 2)))
const r = computed(() => Math.min(side.value / 2 - 2, ((props.diameterMm ?? 0) / widest) * (side.value / 2 - 2)))
</script>

<template>
  <svg :width="side" :height="side" :viewBox="`0 0 ${side} ${side}`" aria-hidden="true">
    <circle :cx="side / 2" :cy="side / 2" :r="side / 2 - 2" fill="none" stroke="var(--hair)" stroke-width="1.5" />
    <circle v-if="diameterMm" :cx="side / 2" :cy="side / 2" :r="r" :fill="colour ?? 'var(--crumb)'" stroke="var(--crust)" stroke-width="2" />
    <rect
      v-else
      :x="side * 0.3"
      :y="side * 0.3"
      :width="side * 0.4"
      :height="side * 0.4"
      rx="4"
      :fill="colour ?? 'var(--crumb)'"
      stroke="var(--crust)"
      stroke-width="2" />
    <circle v-if="onR" class="on" :cx="side / 2" :cy="side / 2" :r="onR" :fill="on?.colour" stroke="var(--ink)" stroke-opacity=".4" />
  </svg>
</template>
