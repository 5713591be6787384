<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<{
  widthMm: number
  lengthMm?: number
  pouredMm?: number
  words: string
  colour?: string
  drawing?: Schemas['Drawing']
  iron?: boolean
  size?: number
}>()

// Plan and section share one scale; a wide crêpe gets a smaller one.
const width = computed(() => props.size ?? 264)
const room = computed(() => width.value - 70) // px for the portion
const scale = computed(() => Math.min((2 * width.value) / 264, room.value / Math.max(props.widthMm, props.lengthMm ?? 0)))
const r = computed(() => (props.widthMm / 2) * scale.value)
const tall = computed(() => ((props.lengthMm ?? props.widthMm) / 2) * scale.value)
const cx = computed(() => room.value / 2 + 14)
const cy = computed(() => tall.value + 5)
const dim = computed(() => cy.value + tall.value + 20)
const h = computed(() => (props.pouredMm ? Math.max(1.5, props.pouredMm * scale.value) : 0))
const top = computed(() => dim.value + 16)
const height = computed(() => (props.pouredMm ? top.value + Math.max(h.value, 12) + 6 : dim.value + 14))
const slab = computed(() => {
  const [l, b, c] = [cx.value - r.value, top.value + h.value, Math.min(h.value, 12)]
  return `M${l} ${b}q0 ${-h.value} ${c} ${-h.value}H${cx.value + r.value - c}q${c} 0 ${c} ${h.value}z`
})
const spots = computed(() => props.drawing?.pieces ?? [])
/** The section shows what the cut meets. */
const cut = computed(() => spots.value.filter((s) => Math.abs(s.y_mm) <= s.length_mm / 2))
const bite = computed(() => props.drawing?.bite_mm ?? 0)
</script>

<template>
  <svg
    :viewBox="`0 0 ${width} ${height}`"
    :width="width"
    :height="height"
    role="img"
    :aria-label="words"
    :data-scale="scale.toFixed(3)"
    :data-pieces="spots.length">
    <rect
      v-if="lengthMm"
      :x="cx - r"
      :y="cy - tall"
      :width="2 * r"
      :height="2 * tall"
      rx="6"
      :fill="colour ?? 'var(--crumb)'"
      stroke="var(--crust)"
      stroke-width="3" />
    <circle v-else :cx="cx" :cy="cy" :r="r" :fill="colour ?? 'var(--crumb)'" stroke="var(--crust)" stroke-width="3" />
    <g v-if="iron" stroke="var(--crust)" stroke-width="2" opacity=".55">
      <path
        v-for="i in 5"
        :key="i"
        :d="`M${cx - r + (i * r) / 3} ${cy - tall * (lengthMm ? 1 : Math.sqrt(1 - (i / 3 - 1) ** 2))}V${cy + tall * (lengthMm ? 1 : Math.sqrt(1 - (i / 3 - 1) ** 2))}M${cx - r * (lengthMm ? 1 : Math.sqrt(1 - (i / 3 - 1) ** 2))} ${cy - tall + (i * tall) / 3}H${cx + r * (lengthMm ? 1 : Math.sqrt(1 - (i / 3 - 1) ** 2))}`" />
    </g>
    <ellipse
      v-for="(s, i) in spots"
      :key="i"
      class="piece"
      :cx="cx + s.x_mm * scale"
      :cy="cy + s.y_mm * scale"
      :rx="Math.max(0.7, (s.length_mm / 2) * scale)"
      :ry="Math.max(0.7, (s.width_mm / 2) * scale)"
      :transform="`rotate(${s.turn_deg} ${cx + s.x_mm * scale} ${cy + s.y_mm * scale})`"
      :fill="s.colour"
      stroke="var(--enamel)"
      stroke-width=".8" />
    <template v-if="!iron">
      <path :d="`M${cx - r - 10} ${cy}h${2 * r + 20}`" stroke="var(--ink)" stroke-width="1.5" stroke-dasharray="7 4 1.5 4" />
    </template>
    <rect
      v-if="spots.length"
      :x="cx - bite * scale * 0.5 + r * 0.3"
      :y="cy - r * 0.62"
      :width="bite * scale"
      :height="bite * scale"
      rx="4"
      fill="none"
      stroke="var(--rim)"
      stroke-width="2" />
    <path :d="`M${cx - r} ${cy + 6}V${dim + 5}M${cx + r} ${cy + 6}V${dim + 5}`" stroke="var(--ink-3)" />
    <path :d="`M${cx - r} ${dim}h${2 * r}`" stroke="var(--ink)" stroke-width="1.5" />
    <path :d="`M${cx - r} ${dim}l8-4v8zM${cx + r} ${dim}l-8-4v8z`" fill="var(--ink)" />
    <rect :x="cx - 38" :y="dim - 11" width="76" height="22" fill="var(--enamel)" />
    <text :x="cx" :y="dim + 6" text-anchor="middle" font-size="17" font-weight="750" fill="var(--ink)">{{ widthMm.toFixed(0) }} mm</text>
    <template v-if="pouredMm">
      <path :d="slab" :fill="colour ?? 'var(--raw)'" stroke="var(--crust)" stroke-width="2" stroke-linejoin="round" />
      <ellipse
        v-for="(s, i) in cut"
        :key="`c${i}`"
        :cx="cx + s.x_mm * scale"
        :cy="top + h - Math.min(s.z_mm, pouredMm) * scale"
        :rx="Math.max(0.7, (s.length_mm / 2) * scale)"
        :ry="Math.max(0.7, (s.height_mm / 2) * scale)"
        :fill="s.colour"
        stroke="var(--enamel)"
        stroke-width=".8" />
      <path :d="`M${cx + r + 9} ${top}v${h}M${cx + r + 4} ${top}h10M${cx + r + 4} ${top + h}h10`" stroke="var(--ink)" stroke-width="1.5" />
    </template>
  </svg>
</template>
