<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

/** Where sugar in water boils in this kitchen, and where this pot begins, stands and stops. */
const props = defineProps<{ pot: Schemas['SauceAnswer'] }>()
const [w, h, left, foot] = [520, 200, 46, 28]
const curve = computed(() => props.pot.curve)
const low = computed(() => Math.floor(Math.min(...curve.value.map((p) => p.boils_c))))
const high = computed(() => Math.ceil(Math.max(...curve.value.map((p) => p.boils_c))))
const most = computed(() => Math.max(...curve.value.map((p) => p.brix)))
const x = (brix: number) => left + (brix / most.value) * (w - left - 20)
const y = (c: number) => h - foot - ((Math.min(c, high.value) - low.value) / (high.value - low.value)) * (h - foot - 16)
const line = computed(() => curve.value.map((p, i) => `${i ? 'L' : 'M'}${x(p.brix).toFixed(1)} ${y(p.boils_c).toFixed(1)}`).join(''))
const dots = computed(() =>
  [
    { key: 'start', s: props.pot.start },
    { key: 'end', s: props.pot.end },
  ].flatMap((d) =>
    d.s.brix === undefined || d.s.boils_c === undefined || d.s.brix > most.value ? [] : [{ key: d.key, brix: d.s.brix, c: d.s.boils_c }],
  ),
)
</script>

<template>
  <figure class="curve">
    <svg :viewBox="`0 0 ${w} ${h}`" role="img" aria-label="Where sugar in water boils in this kitchen, by its °Brix">
      <path :d="`M${left} 10V${h - foot}H${w - 20}`" fill="none" stroke="var(--ink-2)" stroke-width="1.5" />
      <path :d="line" fill="none" stroke="var(--rim)" stroke-width="3" />
      <g v-for="d in dots" :key="d.key">
        <circle :cx="x(d.brix)" :cy="y(d.c)" r="6" :fill="d.key === 'end' ? 'var(--leaf)' : 'var(--enamel)'" stroke="var(--ink)" stroke-width="2" />
        <text
          :x="x(d.brix) + (d.key === 'start' ? -8 : 0)"
          :y="y(d.c) + (d.key === 'start' ? -12 : 24)"
          :text-anchor="d.key === 'start' ? 'end' : d.brix > most / 2 ? 'end' : 'start'">
          {{ d.key }} {{ d.c.toFixed(1) }} °C
        </text>
      </g>
      <text x="4" y="20">{{ high }} °C</text>
      <text x="4" :y="h - foot">{{ low }} °C</text>
      <text v-for="b in [20, 40, 60, 80]" :key="b" :x="x(b)" :y="h - 8" text-anchor="middle">{{ b }}</text>
      <text :x="w - 20" :y="h - 8" text-anchor="end">°Brix</text>
    </svg>
    <figcaption class="muted">
      Sugar in water, after a published equation, at this kitchen’s altitude. What else is dissolved counts as sugar; fruit sugars raise it more than
      white sugar does.
    </figcaption>
  </figure>
</template>

<style scoped>
.curve {
  margin: 0;
}
svg {
  width: 100%;
  max-width: 560px;
}
text {
  font-size: 13px;
  fill: var(--ink-2);
}
figcaption {
  font-size: var(--t-mini);
}
</style>
