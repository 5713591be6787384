<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import type { Flow, Preparation } from './prep'

/** Before and after on one scale: the height of a block is its mass, so nothing can get lost. */
const props = defineProps<{ result: Preparation; from: string; product: string }>()

const high = 190 // px for all that goes in
const top = 14
const gap = 10
const least = 3 // px, so that a pinch is seen
const wide = 58

// On a phone the labels of the left stack give way; the list beside the tub names the colours.
const narrow = useMediaQuery('(max-width: 560px)')
const leftX = computed(() => (narrow.value ? 24 : 150))
const rightX = computed(() => (narrow.value ? 150 : 420))
const all = computed(() => (narrow.value ? 350 : 660))

const colours: Record<string, string> = {
  water_g: 'var(--water-fill)',
  sugars_g: 'var(--honey-fill)',
  fat_g: 'var(--crumb)',
  salt_g: 'var(--steel)',
  other_g: 'var(--raw)',
}
const names: Record<string, string> = { water_g: 'water', sugars_g: 'sugars', fat_g: 'fat', salt_g: 'salt', other_g: 'other solids' }
const keys = ['water_g', 'sugars_g', 'fat_g', 'salt_g', 'other_g'] as const

const total = computed(() => props.result.before_g + props.result.added.reduce((s, f) => s + f.grams, 0))
const px = (g: number) => (total.value > 0 ? (g / total.value) * high : 0)

interface Layer {
  key: string
  y: number
  h: number
  grams: number
}
function layers(parts: Schemas['MassParts'], y: number, all: number): Layer[] {
  const sum = keys.reduce((s, k) => s + parts[k], 0) || 1
  let at = y
  return keys
    .filter((k) => parts[k] > 0.05)
    .map((key) => {
      const h = (parts[key] / sum) * all
      const layer = { key, y: at, h, grams: parts[key] }
      at += h
      return layer
    })
}

const before = computed(() => {
  let y = top
  const added = props.result.added.map((f) => {
    const block = { flow: f, y, h: Math.max(least, px(f.grams)) }
    y += block.h
    return block
  })
  return { added, y, h: px(props.result.before_g), layers: layers(props.result.before, y, px(props.result.before_g)) }
})

const after = computed(() => {
  let y = top
  let source = top
  const left = props.result.left.map((f) => {
    const h = px(f.grams)
    const block = { flow: f, y, h: Math.max(least, h), from: source, fromH: h }
    y += Math.max(block.h, 30) + gap
    source += h
    return block
  })
  const h = px(props.result.product_g)
  return { left, y, h, from: source, layers: layers(props.result.product, y, h), bottom: Math.max(y + h + 14, top + high + 32) }
})

const band = (y1: number, h1: number, y2: number, h2: number) => {
  const a = leftX.value + wide,
    b = rightX.value,
    m = (a + b) / 2
  return `M${a} ${y1}C${m} ${y1} ${m} ${y2} ${b} ${y2}V${y2 + h2}C${m} ${y2 + h2} ${m} ${y1 + h1} ${a} ${y1 + h1}Z`
}
const washes: Record<Flow['kind'], string> = {
  peel: 'var(--well-2)',
  steam: 'var(--water-wash)',
  juice: 'var(--water-wash)',
  held: 'var(--well-2)',
  water: 'var(--water-wash)',
  added: 'var(--rim-wash)',
}
const g = (v: number) => (v < 10 ? v.toFixed(1) : v.toFixed(0))
const words = computed(
  () =>
    `${g(props.result.before_g)} g ${props.from} become ${g(props.result.product_g)} g ${props.product}. ` +
    props.result.left.map((f) => `${f.name}: ${g(f.grams)} g`).join(', '),
)
</script>

<template>
  <svg :viewBox="`0 0 ${all} ${after.bottom}`" class="mass" role="img" :aria-label="words">
    <path v-for="b in after.left" :key="b.flow.name" :d="band(b.from, b.fromH, b.y, b.h)" :fill="washes[b.flow.kind]" />
    <path :d="band(after.from, after.h, after.y, after.h)" fill="var(--yolk-wash)" />

    <text :x="leftX + wide" :y="before.y + before.h + 24" text-anchor="end" class="sum">{{ g(result.before_g) }} g</text>
    <g v-for="b in before.added" :key="b.flow.name">
      <rect :x="leftX" :y="b.y" :width="wide" :height="b.h" fill="var(--rim-wash)" stroke="var(--rim)" stroke-dasharray="4 3" stroke-width="1.500" />
      <text
        :x="narrow ? leftX : leftX - 10"
        :y="narrow ? after.bottom - 2 : b.y + Math.max(12, b.h / 2 + 5)"
        :text-anchor="narrow ? 'start' : 'end'"
        class="added">
        + {{ b.flow.name }} {{ g(b.flow.grams) }} g
      </text>
    </g>
    <g v-for="l in before.layers" :key="l.key">
      <rect :x="leftX" :y="l.y" :width="wide" :height="l.h" :fill="colours[l.key]" />
      <text v-if="l.h > 15 && !narrow" :x="leftX - 10" :y="l.y + l.h / 2 + 5" text-anchor="end">{{ names[l.key] }} {{ g(l.grams) }}</text>
    </g>
    <rect :x="leftX" :y="before.y" :width="wide" :height="before.h" fill="none" stroke="var(--ink)" stroke-width="2" rx="3" />

    <g v-for="b in after.left" :key="b.flow.name" :data-left="b.flow.kind">
      <rect
        :x="rightX"
        :y="b.y"
        :width="wide"
        :height="b.h"
        :fill="b.flow.kind === 'peel' || b.flow.kind === 'held' ? 'var(--steel)' : 'var(--water-fill)'"
        stroke="var(--ink-3)"
        stroke-width="1.500"
        :stroke-dasharray="b.flow.kind === 'steam' ? '4 4' : undefined"
        rx="3" />
      <text :x="rightX + wide + 12" :y="b.y + 13" class="off">{{ b.flow.name }}</text>
      <text :x="rightX + wide + 12" :y="b.y + 30" class="off">
        <tspan class="bold">−{{ g(b.flow.grams) }} g</tspan>
      </text>
    </g>
    <g data-product>
      <rect v-for="l in after.layers" :key="l.key" :x="rightX" :y="l.y" :width="wide" :height="l.h" :fill="colours[l.key]" />
      <rect :x="rightX" :y="after.y" :width="wide" :height="Math.max(least, after.h)" fill="none" stroke="var(--ink)" stroke-width="3" rx="3" />
      <text :x="rightX + wide + 12" :y="after.y + Math.min(26, Math.max(18, after.h / 2))" class="sum">{{ g(result.product_g) }} g</text>
      <text :x="rightX + wide + 12" :y="after.y + Math.min(26, Math.max(18, after.h / 2)) + 18">{{ product }}</text>
      <text
        v-for="(l, i) in after.layers"
        v-show="after.h > 78 + 16 * i"
        :key="`t${l.key}`"
        :x="rightX + wide + 12"
        :y="after.y + 66 + 17 * i"
        class="part">
        <tspan :fill="colours[l.key]" class="dot">■</tspan>
        {{ names[l.key] }} {{ g(l.grams) }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
.mass {
  display: block;
  width: 100%;
  max-height: 330px;
}
text {
  font-size: 14px;
  fill: var(--ink-2);
}
.sum {
  font-size: 24px;
  font-weight: 780;
  fill: var(--ink);
}
.bold {
  font-weight: 700;
  fill: var(--ink);
}
.added {
  fill: var(--rim);
  font-weight: 600;
}
.dot {
  stroke: var(--ink-3);
  stroke-width: 0.5px;
}
</style>
