<script setup lang="ts">
import { computed, useId } from 'vue'

/** A bowl, a jug or a pan, filled as far as it is. */
const props = defineProps<{ vessel: string; full: number; layers: { colour: string; share: number }[]; now?: boolean }>()
const clip = useId()
const shapes: Record<string, { w: number; h: number; path: string; top: number; bottom: number; more: string[] }> = {
  bowl: { w: 95, h: 50, top: 3, bottom: 45, path: 'M2 3C3 32.400 23.800 45 47.500 45S92 32.400 93 3', more: ['M33 47h29'] },
  jug: { w: 62, h: 60, top: 4, bottom: 56, path: 'M8 4V51q0 5 5 5H41q5 0 5-5V4', more: ['M8 4 3 2', 'M46 12h7q4 0 4 4v21q0 4-4 4h-7'] },
  pan: { w: 88, h: 32, top: 6, bottom: 27, path: 'M3 6V23q0 4 4 4H55q4 0 4-4V6', more: ['M59 10l26-5'] },
  cup: { w: 54, h: 42, top: 4, bottom: 38, path: 'M4 4 9 35q1 3 4 3H41q3 0 4-3L50 4', more: [] },
}
const kinds: Record<string, string> = { jug: 'jug', pan: 'pan', last: 'cup', fold_in: 'cup', on_top: 'cup', under: 'cup', steep: 'cup' }
const shape = computed(() => shapes[kinds[props.vessel] ?? 'bowl']!)
const most = 0.8 // of the height, when all is in
const level = computed(() => {
  let y = shape.value.bottom
  const high = (shape.value.bottom - shape.value.top) * most * Math.min(1, props.full)
  return props.layers.map((l) => {
    const h = high * l.share
    y -= h
    return { ...l, y, h: h + 0.5 }
  })
})
</script>

<template>
  <svg
    class="vessel"
    :class="{ now, empty: !layers.length }"
    :width="shape.w"
    :height="shape.h"
    :viewBox="`0 0 ${shape.w} ${shape.h}`"
    aria-hidden="true">
    <clipPath :id="clip"><path :d="shape.path + 'z'" /></clipPath>
    <g :clip-path="`url(#${clip})`"><rect v-for="(l, i) in level" :key="i" x="0" :y="l.y" :width="shape.w" :height="l.h" :fill="l.colour" /></g>
    <path class="side" :d="shape.path" />
    <path v-for="d in shape.more" :key="d" class="side" :d="d" />
  </svg>
</template>

<style scoped>
.side {
  fill: none;
  stroke: var(--ink-3);
  stroke-width: 2;
  stroke-linejoin: round;
  stroke-linecap: round;
}
.now .side {
  stroke: var(--ink);
  stroke-width: 2.5;
}
.empty:not(.now) .side {
  stroke-dasharray: 4 3;
}
</style>
