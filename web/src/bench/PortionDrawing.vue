<script setup lang="ts">
import { computed } from 'vue'

const props = defineProps<{ diameterMm: number; pouredMm: number; words: string; colour?: string }>()

// Plan and section share one scale; a wide crêpe gets a smaller one.
const width = 270
const room = 214 // px for the diameter
const fullScale = 2.05 // px per mm, so that 60 ml and 80 ml differ on the screen as on the plate
const scale = computed(() => Math.min(fullScale, room / props.diameterMm))
const r = computed(() => (props.diameterMm / 2) * scale.value)
const cx = 122
const cy = computed(() => r.value + 6)
const dim = computed(() => cy.value + r.value + 24)
const h = computed(() => Math.max(1.5, props.pouredMm * scale.value))
const top = computed(() => dim.value + 22)
const height = computed(() => top.value + Math.max(h.value, 14) + 8)
const slab = computed(() => {
  const [l, t, b, c] = [cx - r.value, top.value, top.value + h.value, Math.min(h.value, 12)]
  return `M${l} ${b}q0 ${-h.value} ${c} ${-h.value}H${cx + r.value - c}q${c} 0 ${c} ${h.value}z M${l} ${t + h.value}`
})
</script>

<template>
  <svg :viewBox="`0 0 ${width} ${height}`" :width="width" :height="height" role="img" :aria-label="words" :data-scale="scale.toFixed(3)">
    <circle :cx="cx" :cy="cy" :r="r" :fill="colour ?? 'var(--crumb)'" stroke="var(--crust)" stroke-width="3" />
    <path :d="`M${cx - r - 12} ${cy}h${2 * r + 24}`" stroke="var(--ink)" stroke-width="1.5" stroke-dasharray="7 4 1.5 4" />
    <path :d="`M${cx - r} ${cy + 8}V${dim + 5}M${cx + r} ${cy + 8}V${dim + 5}`" stroke="var(--ink-3)" />
    <path :d="`M${cx - r} ${dim}h${2 * r}`" stroke="var(--ink)" stroke-width="1.5" />
    <path :d="`M${cx - r} ${dim}l8-4v8zM${cx + r} ${dim}l-8-4v8z`" fill="var(--ink)" />
    <rect :x="cx - 40" :y="dim - 11" width="80" height="22" fill="var(--enamel)" />
    <text :x="cx" :y="dim + 6" text-anchor="middle" font-size="17" font-weight="750" fill="var(--ink)">{{ diameterMm.toFixed(0) }} mm</text>
    <path :d="slab" :fill="colour ?? 'var(--raw)'" stroke="var(--crust)" stroke-width="2" stroke-linejoin="round" />
    <path :d="`M${cx + r + 10} ${top}v${h}M${cx + r + 4} ${top}h12M${cx + r + 4} ${top + h}h12`" stroke="var(--ink)" stroke-width="1.5" />
  </svg>
</template>
