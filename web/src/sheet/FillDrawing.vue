<script setup lang="ts">
import { computed, useId } from 'vue'
import type { Schemas } from '@/api/client'
import Icon from '@/parts/Icon.vue'

/** One cup, spoon or egg, to scale among its like: in, to fill now, or to come; counted, it stands for all of its like. */
const props = withDefaults(
  defineProps<{ fill: Schemas['Fill']; state: 'in' | 'now' | 'come' | 'plain'; bare?: boolean; counted?: boolean; colour?: string; size?: number }>(),
  {
    colour: 'var(--raw)',
    size: 150,
  },
)
const clip = useId()
const parts: Record<string, number> = { '1': 1, '½': 1 / 2, '⅓': 1 / 3, '¼': 1 / 4, '⅛': 1 / 8 }
/** Side against a whole cup: its volume's cube root, drawn a little larger where it would vanish. */
const scale = computed(() => {
  const whole = { cup: 1, tbsp: 0.55, tsp: 0.45, pinch: 0.3, each: 0.5 }[props.fill.vessel]
  return whole * (props.fill.vessel === 'each' ? 1 : Math.cbrt(parts[props.fill.size] ?? 1) ** 0.8)
})
const spoon = computed(() => props.fill.vessel === 'tbsp' || props.fill.vessel === 'tsp')
const w = computed(() => props.size * scale.value)
const h = computed(() => w.value * (spoon.value ? 0.42 : 0.62))
const label = computed(() => {
  const { vessel, size } = props.fill
  if (vessel === 'each') return 'egg'
  if (vessel === 'pinch') return 'a pinch'
  return `${size} ${vessel}`
})
const path = computed(() =>
  props.fill.vessel === 'each'
    ? 'M50 4C68 4 84 34 84 58A34 34 0 0 1 16 58C16 34 32 4 50 4z'
    : spoon.value
      ? 'M2 6C4 70 24 96 50 96S96 70 98 6z'
      : 'M3 4 13 88q1 8 9 8H78q8 0 9-8L97 4z',
)
</script>

<template>
  <figure class="fill" :class="[state, fill.vessel]">
    <svg
      :width="w + (spoon || fill.vessel === 'cup' ? 26 : 0)"
      :height="h"
      :viewBox="`0 0 ${spoon || fill.vessel === 'cup' ? 118 : 100} 100`"
      preserveAspectRatio="none"
      aria-hidden="true">
      <clipPath :id="clip"><path :d="path" /></clipPath>
      <rect
        v-if="state !== 'come'"
        x="0"
        y="0"
        width="100"
        height="100"
        :fill="state === 'now' ? 'var(--yolk-wash)' : colour"
        :clip-path="`url(#${clip})`" />
      <path :d="path" class="side" vector-effect="non-scaling-stroke" />
      <path v-if="fill.vessel !== 'each'" d="M96 8H116" class="side handle" vector-effect="non-scaling-stroke" />
    </svg>
    <span v-if="state === 'in' && (!spoon || bare)" class="badge" :class="{ small: spoon }"><Icon name="tick" :size="18" /></span>
    <figcaption v-if="!bare">
      {{ fill.out ? 'out again: ' : '' }}<b v-if="counted && fill.times > 1">{{ fill.times }} × </b>{{ label }}
    </figcaption>
  </figure>
</template>

<style scoped>
.fill {
  margin: 0;
  display: grid;
  justify-items: center;
  align-content: end;
  gap: 4px;
  position: relative;
  font-size: var(--t-lead);
  font-weight: 650;
}
.side {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.5;
  stroke-linejoin: round;
}
.come .side {
  stroke: var(--ink-3);
  stroke-dasharray: 6 5;
}
.come figcaption {
  color: var(--ink-2);
}
.now .side {
  stroke-width: 4;
}
figcaption {
  justify-self: start;
}
.badge {
  position: absolute;
  top: calc(50% - 15px);
  left: calc(50% - 24px);
  display: grid;
  place-items: center;
  width: 30px;
  height: 30px;
  border-radius: 50%;
  background: var(--leaf);
  color: var(--enamel);
}
</style>
