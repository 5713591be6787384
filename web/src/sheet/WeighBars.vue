<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, useId } from 'vue'
import { onStep } from '@/parts/figures'

/** What is poured against where to stop: the whole way above, the last of it below, to scale. */
const props = defineProps<{ grams: number; asks: number; low: number; high: number; step: number; decimals: number; colour: string }>()
const box = ref<HTMLElement>()
const { width: measured } = useElementSize(box)
const width = computed(() => Math.max(240, measured.value || 570))
const hatch = useId()

const top = 28 // px of the whole bar
const fineTop = 58
const fineHigh = 118
const end = computed(() => Math.max(props.high * 1.04, props.high + 4 * props.step))
const x = (g: number) => Math.max(0, Math.min(width.value, (g / end.value) * width.value))

/** The last of it: as wide as ten times what is near enough, and never less than twenty steps of the scale. */
const span = computed(() => Math.max(5 * (props.high - props.low), 20 * props.step))
const from = computed(() => Math.max(0, Math.min(props.low + (props.high - props.low) / 2 - span.value * 0.7, end.value - span.value)))
const fx = (g: number) => ((g - from.value) / span.value) * width.value
const inside = (g: number) => Math.max(0, Math.min(width.value, fx(g)))

/** Ticks on round figures, six or so that carry a number. */
function roundStep(range: number, n: number) {
  const raw = range / n
  const ten = 10 ** Math.floor(Math.log10(raw))
  return [1, 2, 5, 10].map((k) => k * ten).find((k) => k >= raw)!
}
function ticks(a: number, b: number, every: number) {
  const out: number[] = []
  for (let i = Math.ceil(a / every - 1e-9); i * every <= b + 1e-9; i++) out.push(i * every)
  return out
}
const wholeTicks = computed(() => ticks(roundStep(end.value, 6), end.value * 0.97, roundStep(end.value, 6)))
const every = computed(() => roundStep(span.value, 5))
const fineTicks = computed(() => ticks(from.value, from.value + span.value, every.value))
const smallTicks = computed(() => ticks(from.value, from.value + span.value, Math.max(props.step, every.value / 10)))
const say = (g: number) => onStep(g, Math.max(props.decimals, every.value < 1 ? 1 : 0))
</script>

<template>
  <div ref="box" class="weigh-bars">
    <svg
      :width="width"
      :height="fineTop + fineHigh + 34"
      role="img"
      :aria-label="`${onStep(grams, decimals)} of ${onStep(asks, decimals)} g; stop between ${onStep(low, decimals)} and ${onStep(high, decimals)} g`">
      <defs>
        <pattern :id="hatch" width="14" height="14" patternUnits="userSpaceOnUse" patternTransform="rotate(15)">
          <path d="M0 0V14" class="hatch" />
        </pattern>
      </defs>
      <rect x="1" y="1" :width="width - 2" :height="top - 2" rx="13" class="track" />
      <rect x="2" y="2" :width="Math.max(0, x(grams) - 2)" :height="top - 4" rx="8" :fill="colour" />
      <rect :x="x(low)" y="1" :width="Math.max(3, x(high) - x(low))" :height="top - 2" class="stop-small" />
      <text v-for="t in wholeTicks" :key="t" :x="x(t)" y="20" text-anchor="middle" class="on-bar">{{ say(t) }}</text>
      <path :d="`M${x(grams)} 0V${top}`" class="needle" />
      <path :d="`M${x(from)} ${top}L2 ${fineTop}M${x(from + span)} ${top}L${width - 2} ${fineTop}`" class="zoom" />
      <rect x="1" :y="fineTop" :width="width - 2" :height="fineHigh" rx="14" class="track" />
      <rect x="2" :y="fineTop + 1" :width="Math.max(0, inside(grams) - 2)" :height="fineHigh - 2" :fill="colour" />
      <rect :x="inside(low)" :y="fineTop + 1" :width="inside(high) - inside(low)" :height="fineHigh - 2" class="stop" />
      <rect :x="inside(high)" :y="fineTop + 1" :width="Math.max(0, width - inside(high) - 2)" :height="fineHigh - 2" class="over" />
      <rect :x="inside(high)" :y="fineTop + 1" :width="Math.max(0, width - inside(high) - 2)" :height="fineHigh - 2" :fill="`url(#${hatch})`" />
      <path v-for="t in smallTicks" :key="`s${t}`" :d="`M${fx(t)} ${fineTop + fineHigh - 10}v10`" class="tick" />
      <g v-for="t in fineTicks" :key="t">
        <path :d="`M${fx(t)} ${fineTop + fineHigh - 26}v26`" class="tick big" />
        <text :x="Math.max(20, Math.min(width - 20, fx(t)))" :y="fineTop + fineHigh + 26" text-anchor="middle" class="under">{{ say(t) }}</text>
      </g>
      <path :d="`M${inside(low)} ${fineTop - 8}V${fineTop + fineHigh}M${inside(high)} ${fineTop - 8}V${fineTop + fineHigh}`" class="edge" />
      <text :x="inside((low + high) / 2)" :y="fineTop + 44" text-anchor="middle" class="word">stop</text>
      <text :x="inside((low + high) / 2)" :y="fineTop + 70" text-anchor="middle" class="range">
        {{ onStep(low, decimals) }} to {{ onStep(high, decimals) }}
      </text>
      <text v-if="width - inside(high) > 60" :x="width - 12" :y="fineTop + 30" text-anchor="end" class="too">over</text>
      <path v-if="grams >= from && grams <= from + span" :d="`M${fx(grams)} ${fineTop - 12}V${fineTop + fineHigh + 4}`" class="needle fat" />
    </svg>
  </div>
</template>

<style scoped>
.weigh-bars {
  flex: none;
  min-width: 0;
  width: 100%;
  overflow: hidden;
}
svg {
  display: block;
}
.track {
  fill: var(--well-2);
  stroke: var(--edge);
  stroke-width: 1.5;
}
.stop-small {
  fill: var(--leaf);
}
.stop {
  fill: var(--leaf-wash);
}
.over {
  fill: var(--beet-wash);
}
.hatch {
  stroke: var(--beet);
  stroke-width: 1.5;
  opacity: 0.7;
}
.edge {
  stroke: var(--leaf);
  stroke-width: 3;
}
.zoom {
  fill: none;
  stroke: var(--edge);
  stroke-width: 1.5;
  stroke-dasharray: 5 4;
}
.needle {
  stroke: var(--ink);
  stroke-width: 4;
}
.needle.fat {
  stroke-width: 6;
}
.tick {
  stroke: var(--ink);
  stroke-width: 1.2;
}
.tick.big {
  stroke-width: 2.5;
}
text {
  fill: var(--ink);
}
.on-bar {
  font-size: 15px;
  font-weight: 650;
  paint-order: stroke;
  stroke: var(--well-2);
  stroke-width: 5;
}
.under {
  font-size: var(--t-title);
  font-weight: 600;
  fill: var(--ink-2);
}
.word {
  font-size: 32px;
  font-weight: 780;
  paint-order: stroke;
  stroke: var(--leaf-wash);
  stroke-width: 6;
}
.range {
  font-size: var(--t-lead);
  font-weight: 700;
  fill: var(--leaf);
  paint-order: stroke;
  stroke: var(--leaf-wash);
  stroke-width: 6;
}
.too {
  font-size: 20px;
  font-weight: 700;
  fill: var(--beet);
  paint-order: stroke;
  stroke: var(--beet-wash);
  stroke-width: 5;
}
</style>
