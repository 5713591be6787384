<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Gauge } from '@/api/client'
import { figure } from '@/parts/figures'
import { useSidewaysTouch } from '@/parts/useSidewaysTouch'

const props = defineProps<{ gauge: Gauge; lying?: boolean }>()
const emit = defineEmits<{ why: []; pull: [to?: number]; step: [steps: number] }>()

// Drawing only: the base sits on the middle, the band is as wide whatever its unit. Standing, more is up; lying, to the right.
const long = computed(() => (props.lying ? 220 : 112))
const middle = computed(() => long.value / 2)
const half = computed(() => (props.lying ? 46 : 24))
const reach = computed(() => middle.value - 10)

/** How many pixels a pixel of the band is worth, on the side of the base that a figure is on. */
function span(up: boolean): number {
  const { base, low, high } = props.gauge
  if (base === undefined || low === undefined || high === undefined) return 0
  const even = (high - low) / 2
  const own = up ? high - base : base - low
  return own > 0.1 * even ? own : even
}
function offset(v: number): number {
  const { base } = props.gauge
  if (base === undefined || !span(v >= base)) return 0
  return (half.value * (v - base)) / span(v >= base)
}
const y = (v: number) => middle.value - Math.max(-reach.value, Math.min(reach.value, offset(v)))
const edge = (v: number | undefined) => (v === undefined ? middle.value : Math.max(6, Math.min(long.value - 6, middle.value - offset(v))))

const known = computed(() => props.gauge.state !== 'unknown' && props.gauge.after !== undefined)
const beyond = computed(() => known.value && Math.abs(offset(props.gauge.after ?? 0)) > reach.value)
const up = computed(() => offset(props.gauge.after ?? 0) > 0)
const good = computed(() => props.gauge.state === 'level' || props.gauge.state === 'in_band')
const drifted = computed(() => known.value && Math.abs(y(props.gauge.with_additions ?? 0) - y(props.gauge.after ?? 0)) > 1)
const number = (v: number | undefined) => (v === undefined ? '' : figure(v, props.gauge.decimals))

// The ring is pulled by the mouse, by the keys, and lying by a finger that goes along it. Over a standing one a
// finger scrolls, and finds the steps behind the gauge.
const leastPx = 6
let from: { x: number; y: number; at: number } | undefined
let moved = false
const perStep = computed(() => {
  const { base, pull } = props.gauge
  const drawn = props.lying ? (ring.value?.clientWidth ?? long.value) / long.value : 0.75
  return pull && base !== undefined ? Math.max(leastPx, drawn * Math.abs(offset(base + pull.step_figure))) : leastPx
})
const ring = ref<HTMLElement>()
function pullTo(at: number) {
  const p = props.gauge.pull
  if (!p) return
  const to = Math.min(p.high, Math.max(p.low, p.rest + Math.round((at - p.rest) / p.step) * p.step))
  if (Math.abs(to - p.at) > p.step / 100) emit('pull', to)
}
function take(e: PointerEvent) {
  moved = false
  if (e.pointerType === 'touch' || !props.gauge.pull) return
  from = { x: e.clientX, y: e.clientY, at: props.gauge.pull.at }
  ;(e.currentTarget as HTMLElement).setPointerCapture(e.pointerId)
}
function drag(e: PointerEvent) {
  const p = props.gauge.pull
  if (!from || !p) return
  const steps = Math.round((props.lying ? e.clientX - from.x : from.y - e.clientY) / perStep.value)
  moved ||= steps !== 0
  pullTo(from.at + steps * p.step)
}
function letGo() {
  from = undefined
}
const along = computed(() => (props.lying ? ring.value : undefined))
useSidewaysTouch(along, (share) => {
  const p = props.gauge.pull
  if (!p || !p.step_figure) return
  const px = share * long.value - middle.value
  const by = (px / half.value) * span(px >= 0)
  pullTo(p.rest + (by / p.step_figure) * p.step)
})
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
  <div class="gauge" :class="{ pulled: gauge.target !== undefined, lying }">
    <button type="button" class="glass" :data-gauge="gauge.label" :data-state="gauge.state" :title="gauge.verdict_text" @click="emit('why')">
      <span class="name">{{ gauge.label }}</span>
      <svg :viewBox="lying ? `0 0 ${long} 40` : `0 0 40 ${long}`" aria-hidden="true">
        <g :transform="lying ? `translate(${long} 0) rotate(90)` : undefined">
          <rect x="8" y="1" width="24" :height="long - 2" rx="12" fill="var(--well-2)" />
          <template v-if="gauge.low !== undefined && gauge.high !== undefined">
            <rect x="8" :y="edge(gauge.high)" width="24" :height="edge(gauge.low) - edge(gauge.high)" fill="var(--leaf-wash)" />
            <path :d="`M4 ${edge(gauge.high)}h32M4 ${edge(gauge.low)}h32`" stroke="var(--leaf)" stroke-width="2" />
          </template>
          <rect
            x="8"
            y="1"
            width="24"
            :height="long - 2"
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
            <circle
              v-if="gauge.target !== undefined"
              cx="20"
              :cy="middle"
              r="10"
              fill="none"
              stroke="var(--ink-3)"
              stroke-width="2"
              stroke-dasharray="3 3" />
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
        </g>
      </svg>
      <span v-if="gauge.after !== undefined" class="figure"
        >{{ number(gauge.after)
        }}<small v-if="gauge.base !== undefined"><i :class="{ ghost: gauge.target !== undefined }" />{{ number(gauge.base) }}</small></span
      >
      <span class="say" :class="{ out: !good && known }">{{ gauge.verdict }}</span>
      <span class="vh">Why?</span>
    </button>
    <span
      v-if="gauge.pull"
      ref="ring"
      class="ring"
      role="slider"
      tabindex="0"
      :aria-orientation="lying ? 'horizontal' : 'vertical'"
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
  grid-template: 'name name' auto 'track figure' auto 'say say' auto / 30px minmax(0, 1fr);
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
svg {
  grid-area: track;
  width: 30px;
  height: 84px;
}
.name {
  grid-area: name;
  font-size: 14px;
  font-weight: 700;
  white-space: nowrap;
}
.figure {
  grid-area: figure;
  align-self: center;
  font-size: 19px;
  font-weight: 750;
  line-height: 1;
  display: grid;
  gap: 8px;
  white-space: nowrap;
}
.figure small {
  font-size: 14px;
  font-weight: 500;
  color: var(--ink-2);
}
.figure i {
  display: inline-block;
  width: 10px;
  height: 10px;
  margin-right: 3px;
  border: 1.5px solid var(--ink);
  border-radius: 50%;
}
.figure i.ghost {
  border: 1.5px dashed var(--ink-3);
}
.say {
  grid-area: say;
  color: var(--leaf);
  font-weight: 650;
  font-size: 14px;
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
/* Lying: name and figures above, the track, the word below; or in a row where there is room. */
.lying .glass {
  grid-template: 'name figure' auto 'track track' auto 'say say' auto / minmax(0, 1fr) auto;
  row-gap: 0;
  padding: 3px var(--s2);
}
.lying svg {
  width: 100%;
  height: 32px;
}
.lying .figure {
  display: flex;
  align-items: baseline;
  gap: 6px;
}
.lying .ring {
  inset: 20px var(--s2) auto;
  width: auto;
  height: 44px;
  cursor: ew-resize;
}
.lying .name {
  font-size: var(--t-body);
}
@container balance (min-width: 320px) {
  .lying .glass {
    grid-template: 'name track figure' auto 'say track figure' auto / 104px minmax(0, 1fr) 78px;
    column-gap: var(--s2);
    align-items: center;
    min-height: 52px;
  }
  .lying .figure {
    display: grid;
    gap: 3px;
    justify-items: end;
  }
  .lying .ring {
    inset: 4px 94px 4px 120px;
    height: 44px;
  }
}
</style>
