<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '@/api/client'

/**
 * The rim of a drawn portion, to be pulled to where a hand spreads it: by the mouse, a finger that moves sideways, or the
 * arrow keys. It hands out whole millimetres across; the drawing keeps its scale while it is pulled.
 */
const props = defineProps<{ spread: Schemas['PortionSpread']; x: number; y: number; scale: number; most: number }>()
const emit = defineEmits<{ pull: [mm: number]; hold: [on: boolean] }>()
const from = ref<{ at: number; mm: number; scale: number; most: number }>()
const within = (mm: number, most = props.spread.high_mm) => Math.round(Math.max(props.spread.low_mm, Math.min(props.spread.high_mm, most, mm)))
const keys: Record<string, number> = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1, PageUp: 5, PageDown: -5, Home: -1000, End: 1000 }

function down(e: PointerEvent) {
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
  from.value = { at: e.clientX, mm: props.spread.to_mm, scale: props.scale, most: props.most }
  emit('hold', true)
}
function move(e: PointerEvent) {
  const f = from.value
  if (f && e.clientX !== f.at) emit('pull', within(f.mm + (2 * (e.clientX - f.at)) / f.scale, f.most))
}
function up() {
  if (!from.value) return
  from.value = undefined
  emit('hold', false)
}
function key(e: KeyboardEvent) {
  const by = keys[e.key]
  if (!by) return
  e.preventDefault()
  e.stopPropagation()
  emit('pull', within(Math.round(props.spread.to_mm) + by))
}
</script>

<template>
  <g
    class="rim"
    role="slider"
    tabindex="0"
    aria-label="How wide it is spread"
    :aria-valuemin="spread.low_mm"
    :aria-valuemax="spread.high_mm"
    :aria-valuenow="Math.round(spread.to_mm)"
    :aria-valuetext="`${spread.to_mm.toFixed(0)} mm across, ${spread.by === 'hand' ? 'by hand' : 'by itself'}`"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="up"
    @keydown="key">
    <title>Pull it to where you spread it</title>
    <rect :x="x - 24" :y="y - 24" width="48" height="48" fill="transparent" />
    <rect class="knob" :x="x - 5" :y="y - 13" width="10" height="26" rx="5" />
  </g>
</template>

<style scoped>
.rim {
  cursor: ew-resize;
  touch-action: pan-y;
  outline: none;
}
.knob {
  fill: var(--ink);
  stroke: var(--enamel);
  stroke-width: 2;
}
.rim:focus-visible .knob {
  stroke: var(--rim);
  stroke-width: 4;
}
</style>
