<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<{ face: Schemas['DialFace']; said: string }>()

// A knob of 270°, from low on the left to high on the right.
const from = -135
const sweep = 270
const r = 62
const angle = (at: number) => ((from + (sweep * at) / (props.face.marks.length - 1) - 90) * Math.PI) / 180
const point = (at: number, radius: number) => ({ x: 100 + radius * Math.cos(angle(at)), y: 88 + radius * Math.sin(angle(at)) })
function arc(a: number, b: number) {
  const [p, q] = [point(a, r), point(b, r)]
  const large = ((b - a) * sweep) / (props.face.marks.length - 1) > 180 ? 1 : 0
  return `M${p.x} ${p.y}A${r} ${r} 0 ${large} 1 ${q.x} ${q.y}`
}
const last = computed(() => props.face.marks.length - 1)
const near = computed(() => Math.round(props.face.at))
/** Long words stand at the ends and in the middle only. */
const shown = computed(() => {
  const long = props.face.marks.some((m) => m.length > 2)
  return props.face.marks.flatMap((text, i) => {
    if (long && i !== 0 && i !== last.value && i !== last.value / 2) return []
    const p = long && i === 0 ? { x: -8, y: 158 } : long && i === last.value ? { x: 208, y: 158 } : point(i, r + 15)
    return [{ text, ...p, on: i === near.value, anchor: long && i === 0 ? 'start' : long && i === last.value ? 'end' : 'middle' }]
  })
})
</script>

<template>
  <svg viewBox="-8 0 216 168" class="dial" role="img" :aria-label="`The dial: ${said}`">
    <path :d="arc(0, last)" class="track" />
    <path v-if="face.window" :d="arc(face.window[0]!, Math.max(face.window[1]!, face.window[0]! + 0.05))" class="window" />
    <circle cx="100" cy="88" r="46" class="knob" />
    <line :x1="point(face.at, 18).x" :y1="point(face.at, 18).y" :x2="point(face.at, 42).x" :y2="point(face.at, 42).y" class="hand" />
    <text v-for="m in shown" :key="m.text" :x="m.x" :y="m.y + 6" :text-anchor="m.anchor" :class="{ on: m.on }">{{ m.text }}</text>
  </svg>
</template>

<style scoped>
.dial {
  display: block;
  width: 100%;
  max-width: 230px;
  max-height: 170px;
  margin: 0 auto;
}
.track,
.window {
  fill: none;
  stroke-width: 11;
  stroke: var(--well-2);
}
.window {
  stroke: var(--leaf);
}
.knob {
  fill: var(--enamel);
  stroke: var(--ink);
  stroke-width: 2.5;
}
.hand {
  stroke: var(--ink);
  stroke-width: 7;
  stroke-linecap: round;
}
text {
  fill: var(--ink-2);
  font-size: 15px;
}
.on {
  fill: var(--ink);
  font-weight: 750;
}
</style>
