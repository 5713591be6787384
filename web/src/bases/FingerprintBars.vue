<script setup lang="ts">
import { computed } from 'vue'
import { figure } from '@/parts/figures'
import type { Fingerprint } from './bases'

/** The traits of a base: each on its own strip, the usual range in the middle third. */
const props = defineProps<{ print: Fingerprint; few?: boolean }>()
const shown = new Set(['liquid', 'egg', 'fat', 'sugar', 'thickness', 'lift'])
const rows = computed(() => props.print.ratios.filter((r) => !props.few || shown.has(r.key)))

/** Where a value stands on the strip in per cent: the band is its middle third. */
function place(r: Fingerprint['ratios'][number]) {
  if (r.low === undefined || r.high === undefined) return undefined
  const width = r.high - r.low || 1
  return Math.min(98, Math.max(2, 33.3 + ((r.value - r.low) / width) * 33.3))
}
</script>

<template>
  <ul class="bars" :class="{ few }">
    <li v-for="r in rows" :key="r.key" :data-ratio="r.key" :data-state="r.state">
      <span class="name">{{ r.name }}</span>
      <span class="strip" :class="{ open: r.low === undefined }">
        <i v-if="r.low !== undefined" class="band" />
        <i v-if="place(r) !== undefined" class="mark" :class="r.state" :style="{ left: `${place(r)}%` }" />
      </span>
      <b :title="r.unit"
        >{{ figure(r.value, r.decimals) }}<span v-if="few" class="unit">{{ r.brief }}</span></b
      >
      <small v-if="!few"
        >{{ r.unit
        }}<template v-if="r.low !== undefined">, usually {{ figure(r.low, r.decimals) }}–{{ figure(r.high ?? 0, r.decimals) }}</template></small
      >
    </li>
  </ul>
</template>

<style scoped>
.bars {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 2px;
}
li {
  display: grid;
  grid-template-columns: 112px minmax(70px, 1fr) 50px minmax(0, 170px);
  align-items: center;
  gap: var(--s2);
  font-size: 14px;
  min-height: 26px;
}
.few li {
  grid-template-columns: 74px minmax(60px, 1fr) 66px;
  font-size: var(--t-mini);
  min-height: 21px;
}
.name {
  color: var(--ink-2);
}
.strip {
  position: relative;
  height: 10px;
  background: var(--well-2);
  border-radius: 5px;
}
.open {
  background: none;
  border-bottom: 1.5px dashed var(--hair);
  height: 6px;
  border-radius: 0;
}
.band {
  position: absolute;
  inset: 0 33.3%;
  background: var(--leaf-wash);
  border: 1.5px solid var(--leaf);
  border-radius: 5px;
}
.mark {
  position: absolute;
  top: -2px;
  width: 14px;
  height: 14px;
  margin-left: -7px;
  background: var(--leaf);
  border-radius: 50%;
  border: 2px solid var(--enamel);
}
.mark.low,
.mark.high {
  background: var(--beet);
  border-radius: 2px;
  transform: rotate(45deg) scale(0.85);
}
b {
  text-align: right;
  white-space: nowrap;
}
.unit {
  display: inline-block;
  width: 2.6ch;
  padding-left: 4px;
  text-align: left;
  font-weight: 500;
  color: var(--ink-2);
}
small {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
@media (max-width: 560px) {
  li {
    grid-template-columns: 92px minmax(50px, 1fr) 46px;
  }
  li small {
    grid-column: 1 / -1;
  }
}
</style>
