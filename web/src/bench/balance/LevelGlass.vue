<script setup lang="ts">
import { computed } from 'vue'
import type { Gauge } from '@/api/client'
import { figure } from '@/parts/figures'

const props = defineProps<{ gauge: Gauge }>()
const emit = defineEmits<{ why: []; pull: [to?: number]; step: [steps: number] }>()

// Drawing only: the base sits on the shared level line, the band is 48 px high whatever its unit.
const middle = 56
const half = 24
const reach = 46

function offset(v: number): number {
  const { base, low, high } = props.gauge
  if (base === undefined || low === undefined || high === undefined) return 0
  const even = (high - low) / 2
  const span = v >= base ? high - base : base - low
  return (half * (v - base)) / (span > 0.1 * even ? span : even)
}
const y = (v: number) => middle - Math.max(-reach, Math.min(reach, offset(v)))
const edge = (v: number | undefined) => (v === undefined ? middle : Math.max(6, Math.min(106, middle - offset(v))))

const known = computed(() => props.gauge.state !== 'unknown' && props.gauge.after !== undefined)
const beyond = computed(() => known.value && Math.abs(offset(props.gauge.after ?? 0)) > reach)
const up = computed(() => offset(props.gauge.after ?? 0) > 0)
const good = computed(() => props.gauge.state === 'level' || props.gauge.state === 'in_band')
const drifted = computed(() => known.value && Math.abs(y(props.gauge.with_additions ?? 0) - y(props.gauge.after ?? 0)) > 1)
const number = (v: number | undefined) => (v === undefined ? '' : figure(v, props.gauge.decimals))

// The ring is pulled by the mouse and by the keys; a finger scrolls, and finds the steps behind the gauge.
const leastPx = 6
let from: { y: number; at: number } | undefined
let moved = false
const perStep = computed(() => {
  const { base, pull } = props.gauge
  return pull && base !== undefined ? Math.max(leastPx, 0.75 * Math.abs(offset(base + pull.step_figure))) : leastPx
})
function take(e: PointerEvent) {
  moved = false
  if (e.pointerType === 'touch' || !props.gauge.pull) return
  from = { y: e.clientY, at: props.gauge.pull.at }
  ;(e.currentTarget as HTMLElement).setPointerCapture(e.pointerId)
}
function drag(e: PointerEvent) {
  const p = props.gauge.pull
  if (!from || !p) return
  const steps = Math.round((from.y - e.clientY) / perStep.value)
  const to = Math.min(p.high, Math.max(p.low, from.at + steps * p.step))
  moved ||= steps !== 0
  if (Math.abs(to - p.at) > p.step / 100) emit('pull', to)
}
function letGo() {
  from = undefined
}
const tapped = () => !moved && emit('why')
const keys: Record<string, number> = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 4, PageDown: -4 }
function key(e: KeyboardEvent) {
  const p = props.gauge.pull
  const steps = keys[e.key]
  if (!p) return
  if (steps) emit('step', steps)
  else if (e.key === 'Home') emit('pull')
  else if (e.key === 'Enter') emit('why')
  else return
  e.preventDefault()
  e.stopPropagation()
}
</script>

<template>
  <div class="gauge" :class="{ pulled: gauge.target !== undefined }">
    <button
      type="button"
      class="glass"
      :data-gauge="gauge.label"
      :data-state="gauge.state"
      :aria-label="`${gauge.label}: ${gauge.verdict_text}. Why?`"
      @click="emit('why')">
      <span class="name">{{ gauge.label }}</span>
      <svg width="30" height="84" viewBox="0 0 40 112" aria-hidden="true">
        <rect x="8" y="1" width="24" height="110" rx="12" fill="var(--well-2)" />
        <template v-if="gauge.low !== undefined && gauge.high !== undefined">
          <rect x="8" :y="edge(gauge.high)" width="24" :height="edge(gauge.low) - edge(gauge.high)" fill="var(--leaf-wash)" />
          <path :d="`M4 ${edge(gauge.high)}h32M4 ${edge(gauge.low)}h32`" stroke="var(--leaf)" stroke-width="2" />
        </template>
        <rect
          x="8"
          y="1"
          width="24"
          height="110"
          rx="12"
          fill="none"
          stroke="var(--edge)"
          stroke-width="1.5"
          :stroke-dasharray="known ? undefined : '4 4'" />
        <template v-if="known">
          <path
            v-if="drifted"
            :d="`M20 ${y(gauge.with_additions ?? 0)}V${y(gauge.after ?? 0)}`"
            stroke="var(--ink-3)"
            stroke-width="2"
            stroke-dasharray="2 3" />
          <rect x="6" :y="y(gauge.with_additions ?? 0) - 3.5" width="28" height="7" rx="2" class="bar" />
          <path v-if="gauge.target !== undefined" :d="`M10 ${middle}h20`" stroke="var(--ink)" stroke-width="2.2" />
          <circle
            cx="20"
            :cy="y(gauge.target ?? gauge.base ?? 0)"
            r="10"
            fill="var(--enamel)"
            :stroke="gauge.target === undefined ? 'var(--ink)' : 'var(--rim)'"
            :stroke-width="gauge.target === undefined ? 2.2 : 3.5" />
          <g class="mark" :transform="`translate(20 ${y(gauge.after ?? 0)})`">
            <circle v-if="good" r="7.5" fill="var(--leaf)" stroke="var(--enamel)" stroke-width="2" />
            <rect
              v-else
              x="-6.5"
              y="-6.5"
              width="13"
              height="13"
              rx="2"
              transform="rotate(45)"
              fill="var(--beet)"
              stroke="var(--enamel)"
              stroke-width="2" />
            <path v-if="beyond" :d="up ? 'M-6 16l6-6 6 6' : 'M-6 -16l6 6 6-6'" fill="none" stroke="var(--beet)" stroke-width="2.5" />
          </g>
        </template>
      </svg>
      <span v-if="gauge.after !== undefined" class="figure" :title="`${number(gauge.after)} ${gauge.unit}`">{{ number(gauge.after) }}</span>
      <span class="say" :class="{ out: !good && known }"><i class="sign" :class="gauge.state" />{{ gauge.verdict_text }}</span>
    </button>
    <span
      v-if="gauge.pull"
      class="ring"
      role="slider"
      tabindex="0"
      aria-orientation="vertical"
      :aria-label="`${gauge.label}: pull it`"
      :aria-valuenow="gauge.pull.at"
      :aria-valuemin="gauge.pull.low"
      :aria-valuemax="gauge.pull.high"
      :aria-valuetext="gauge.pull.text"
      :title="`${gauge.pull.text}: drag it, or use the arrow keys`"
      @pointerdown="take"
      @pointermove="drag"
      @pointerup="letGo"
      @pointercancel="letGo"
      @click="tapped"
      @keydown="key" />
  </div>
</template>

<style scoped>
.gauge {
  position: relative;
  min-width: 0;
}
.ring {
  position: absolute;
  left: 2px;
  top: 22px;
  width: 34px;
  height: 88px;
  border-radius: var(--r-ctl);
  cursor: ns-resize;
  touch-action: pan-y;
}
.ring:focus-visible {
  box-shadow: 0 0 0 3px var(--rim);
}
.pulled .glass {
  background: var(--rim-wash);
}
.pulled .say:not(.out) {
  color: var(--rim);
}
.glass {
  width: 100%;
  display: grid;
  grid-template: auto auto auto / 30px minmax(0, 1fr);
  column-gap: var(--s1);
  row-gap: 3px;
  align-content: start;
  min-width: 0;
  padding: var(--s1);
  border: 0;
  border-radius: var(--r-ctl);
  background: none;
  text-align: left;
  cursor: pointer;
  line-height: 1.15;
}
.glass:hover {
  background: var(--well);
}
.name {
  grid-column: 1 / -1;
  font-size: 14px;
  font-weight: 700;
  white-space: nowrap;
}
.figure {
  align-self: center;
  font-size: 19px;
  font-weight: 750;
  line-height: 1;
}
.say {
  grid-column: 1 / -1;
  color: var(--leaf);
  font-weight: 650;
  font-size: var(--t-mini);
}
.say .sign {
  width: 9px;
  height: 9px;
  margin-right: 5px;
}
.say.out {
  color: var(--beet);
}
.glass[data-state='unknown'] .say {
  color: var(--ink-2);
}
.bar {
  fill: var(--ink-3);
  stroke: var(--enamel);
  stroke-width: 1.5;
  transition: y 180ms ease-out;
}
.mark {
  transition: transform 180ms ease-out;
}
</style>
