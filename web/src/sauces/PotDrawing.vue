<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

/** The pot in section, to scale: where it begins, where it stands now, where to stop, and a skewer with a notch for each. */
const props = defineProps<{ pot: Schemas['SaucePot']; now?: number; colour: string; words: string; whipped?: boolean }>()
const width = 456
const wall = 300 // px across inside
const left = 34
const scale = computed(() => Math.min(wall / props.pot.wide_mm, 210 / props.pot.high_mm))
const w = computed(() => props.pot.wide_mm * scale.value)
const h = computed(() => props.pot.high_mm * scale.value)
const bottom = computed(() => h.value + 18)
const x0 = computed(() => left + (wall - w.value) / 2)
const y = (mm: number) => bottom.value - mm * scale.value
const level = computed(() => props.now ?? props.pot.start_mm)
const falls = computed(() => props.pot.boils && props.pot.start_mm - props.pot.stop_mm > 0.5)
const height = computed(() => bottom.value + 40)
const skewer = computed(() => x0.value + w.value - 58)
/** Three figures beside the wall keep clear of each other. */
const marks = computed(() => {
  const all = [
    { key: 'start', mm: props.pot.start_mm, text: 'start' },
    ...(props.now === undefined ? [] : [{ key: 'now', mm: props.now, text: 'now' }]),
    { key: 'stop', mm: props.pot.stop_mm, text: props.whipped ? 'whipped' : 'stop' },
  ]
    .sort((a, b) => b.mm - a.mm)
    .map((m) => ({ ...m, at: y(m.mm) + 5 }))
  if (!falls.value && !props.whipped) return all.filter((m) => m.key === 'start').map((m) => ({ ...m, text: 'deep' }))
  for (let i = 1; i < all.length; i++) all[i]!.at = Math.max(all[i]!.at, all[i - 1]!.at + 24)
  return all
})
const bubbles = [0.1, 0.22, 0.31, 0.44, 0.53, 0.67, 0.78]
</script>

<template>
  <svg class="pot" :viewBox="`0 0 ${width} ${height}`" role="img" :aria-label="words" :data-level="level.toFixed(1)">
    <rect :x="x0" :y="y(level)" :width="w" :height="bottom - y(level)" :fill="colour" :opacity="falls && level > pot.stop_mm ? 0.55 : 1" />
    <rect v-if="falls" :x="x0" :y="y(Math.min(level, pot.stop_mm))" :width="w" :height="bottom - y(Math.min(level, pot.stop_mm))" :fill="colour" />
    <g v-if="pot.boils" fill="none" stroke="var(--ink)" stroke-width="1.5" opacity=".5">
      <circle v-for="(b, i) in bubbles" :key="b" :cx="x0 + b * w" :cy="y(level) + 7 + (i % 3) * 3" :r="3 + (i % 3)" />
    </g>
    <g v-if="pot.boils" fill="none" stroke="var(--water)" stroke-width="3" stroke-linecap="round" class="steam">
      <path v-for="k in [0.17, 0.41, 0.64]" :key="k" :d="`M${x0 + k * w} ${y(level) - 12}q-8 -9 0 -18t0 -18`" />
    </g>
    <path v-if="falls || whipped" :d="`M${x0} ${y(pot.start_mm)}h${w}`" stroke="var(--ink-2)" stroke-width="1.5" stroke-dasharray="3 5" />
    <path v-if="falls || whipped" :d="`M${x0} ${y(pot.stop_mm)}h${w + 10}`" stroke="var(--leaf)" stroke-width="3.500" stroke-dasharray="12 6" />
    <g v-if="falls" class="skewer">
      <path :d="`M${skewer} ${bottom - 2}L${skewer + 18} 4`" stroke="var(--crust)" stroke-width="6" stroke-linecap="round" />
      <path
        v-for="mm in [pot.start_mm, pot.stop_mm]"
        :key="mm"
        :d="`M${skewer + ((bottom - y(mm)) / bottom) * 18 - 7} ${y(mm)}h14`"
        stroke="var(--ink)"
        stroke-width="3" />
    </g>
    <path
      :d="`M${x0 - 11} 10h11V${bottom - 12}q0 12 12 12H${x0 + w - 12}q12 0 12 -12V10h11`"
      fill="none"
      stroke="var(--ink)"
      stroke-width="5"
      stroke-linecap="round"
      stroke-linejoin="round" />
    <path :d="`M${x0 - 3} 40h-14q-8 0 -8 8v18q0 8 8 8h14`" fill="none" stroke="var(--ink)" stroke-width="5" />
    <g class="marks">
      <text v-for="m in marks" :key="m.key" :x="x0 + w + 18" :y="m.at" :class="m.key" :data-mark="m.key">
        {{ m.mm.toFixed(0) }}
        <tspan>{{ m.text }}</tspan>
      </text>
      <text v-if="marks.length" :x="x0 + w + 20" :y="marks.at(-1)!.at + 20" class="unit">mm deep</text>
    </g>
    <path :d="`M${x0} ${bottom + 12}v10M${x0 + w} ${bottom + 12}v10M${x0} ${bottom + 17}h${w}`" stroke="var(--ink-2)" stroke-width="1.5" />
    <text :x="x0 + w / 2" :y="bottom + 34" text-anchor="middle" class="unit">{{ pot.wide_mm.toFixed(0) }} mm across, to scale</text>
  </svg>
</template>

<style scoped>
.pot {
  display: block;
  width: 100%;
  max-width: 480px;
}
text {
  font-size: 15px;
  fill: var(--ink-2);
}
.marks text:not(.unit) {
  font-size: 17px;
  font-weight: 650;
}
.marks .now {
  font-size: 21px;
  font-weight: 780;
  fill: var(--ink);
}
.marks .stop {
  font-size: 21px;
  font-weight: 780;
  fill: var(--leaf);
}
tspan {
  font-size: 14px;
  font-weight: 600;
}
</style>
