<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import RimPull from './RimPull.vue'

const props = defineProps<{
  widthMm: number
  lengthMm?: number
  pouredMm?: number
  words: string
  colour?: string
  drawing?: Schemas['Drawing']
  on?: Schemas['OnPortion'][] // what goes on it
  iron?: boolean
  size?: number
  spread?: Schemas['PortionSpread'] // when its rim can be pulled
}>()
const emit = defineEmits<{ pull: [mm: number] }>()

/** While the rim is pulled the scale stays, and the disc is as wide as the hand has it. */
const held = ref<number>()
const pulled = ref<number>()
const hold = (on: boolean) => {
  held.value = on ? scale.value : undefined
  pulled.value = undefined
}
function pull(mm: number) {
  if (held.value) pulled.value = mm
  emit('pull', mm)
}

// Plan and section share one scale; a wide crêpe gets a smaller one. A rim that can be pulled has a fifth of its width to grow.
const roomToGrow = 1.2
const width = computed(() => props.size ?? 264)
const wideMm = computed(() => pulled.value ?? props.widthMm)
const room = computed(() => width.value - (props.spread ? 50 : 70)) // px for the portion
const grows = computed(() => (props.spread ? Math.min(roomToGrow, Math.max(1, props.spread.high_mm / props.widthMm)) : 1))
const scale = computed(
  () => held.value ?? Math.min((2 * width.value) / 264, room.value / (grows.value * Math.max(props.widthMm, props.lengthMm ?? 0))),
)
const r = computed(() => (wideMm.value / 2) * scale.value)
const tall = computed(() => ((props.lengthMm ?? wideMm.value) / 2) * scale.value)
const cx = computed(() => room.value / 2 + (props.spread ? 4 : 14))
const cy = computed(() => (props.spread ? Math.min(room.value / 2, grows.value * (props.widthMm / 2) * scale.value) : tall.value) + 5)
const dim = computed(() => cy.value + (props.spread ? cy.value - 5 : tall.value) + 20)
const h = computed(() => (props.pouredMm ? Math.max(1.5, props.pouredMm * scale.value) : 0))
const above = computed(() => Math.max(0, ...(props.on ?? []).filter((o) => !flat(o) && o.shape !== 'inside').map((o) => o.high_mm * scale.value)))
const top = computed(() => dim.value + 16 + above.value)
const flat = (o: Schemas['OnPortion']) => o.shape === 'dust' || o.shape === 'pieces'
/** Pieces and dust lie all over, each at a place of its own: a turn by the golden angle for every one. */
const golden = Math.PI * (3 - Math.sqrt(5))
function scattered(o: Schemas['OnPortion']) {
  const n = o.shape === 'dust' ? 70 : (o.pieces ?? 0)
  return Array.from({ length: n }, (_, i) => {
    const far = (o.wide_mm / 2) * 0.92 * Math.sqrt((i + 0.5) / n) * scale.value
    return { x: cx.value + far * Math.cos(i * golden), y: cy.value + far * Math.sin(i * golden) }
  })
}
const cap = (o: Schemas['OnPortion']) => {
  const [x, w, t] = [cx.value + o.x_mm * scale.value, (o.wide_mm / 2) * scale.value, Math.max(1.5, o.high_mm * scale.value)]
  if (o.shape === 'pat') return `M${x - w} ${top.value}v${-t}h${2 * w}v${t}z`
  return `M${x - w} ${top.value}C${x - w} ${top.value - 1.33 * t} ${x + w} ${top.value - 1.33 * t} ${x + w} ${top.value}z`
}
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
    :role="spread ? 'group' : 'img'"
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
    <g v-for="(o, i) in on ?? []" :key="`on${i}`" class="on" :data-on="o.shape">
      <template v-if="flat(o)">
        <circle
          v-for="(d, k) in scattered(o)"
          :key="k"
          :cx="d.x"
          :cy="d.y"
          :r="o.shape === 'dust' ? 0.9 : 2.4"
          :fill="o.colour"
          stroke="var(--ink)"
          :stroke-opacity="o.shape === 'dust' ? 0 : 0.35" />
      </template>
      <rect
        v-else-if="o.shape === 'pat'"
        :x="cx + (o.x_mm - o.wide_mm / 2) * scale"
        :y="cy + (o.y_mm - o.wide_mm / 2) * scale"
        :width="o.wide_mm * scale"
        :height="o.wide_mm * scale"
        rx="2"
        :fill="o.colour"
        stroke="var(--ink)"
        stroke-opacity=".5" />
      <circle
        v-else
        :cx="cx + o.x_mm * scale"
        :cy="cy + o.y_mm * scale"
        :r="(o.wide_mm / 2) * scale"
        :fill="o.shape === 'inside' ? 'none' : o.colour"
        :fill-opacity="o.shape === 'pool' ? 0.85 : 1"
        :stroke="o.shape === 'inside' ? o.colour : 'var(--ink)'"
        :stroke-opacity="o.shape === 'inside' ? 1 : 0.4"
        :stroke-width="o.shape === 'inside' ? 3 : 1"
        :stroke-dasharray="o.shape === 'inside' ? '5 4' : undefined" />
    </g>
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
    <text :x="cx" :y="dim + 6" text-anchor="middle" font-size="17" font-weight="750" fill="var(--ink)">{{ wideMm.toFixed(0) }} mm</text>
    <RimPull v-if="spread" :spread="spread" :x="cx + r" :y="cy" :scale="scale" :most="room / scale" @pull="pull" @hold="hold" />
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
      <template v-for="(o, i) in on ?? []" :key="`s${i}`">
        <ellipse
          v-if="o.shape === 'inside'"
          :cx="cx + o.x_mm * scale"
          :cy="top + h / 2"
          :rx="(o.wide_mm / 2) * scale"
          :ry="Math.max(1.5, (o.high_mm / 2) * scale)"
          :fill="o.colour" />
        <path v-else-if="!flat(o)" :d="cap(o)" :fill="o.colour" stroke="var(--ink)" stroke-opacity=".4" />
      </template>
      <path :d="`M${cx + r + 9} ${top}v${h}M${cx + r + 4} ${top}h10M${cx + r + 4} ${top + h}h10`" stroke="var(--ink)" stroke-width="1.5" />
    </template>
  </svg>
</template>
