<script setup lang="ts">
import type { Schemas } from '@/api/client'

/** What 100 g consist of: one bar for each constituent, the table's value as a mark. */
defineProps<{ slices: Schemas['Slice'][] }>()
const fills: Record<string, string> = {
  water: 'var(--water-fill)',
  sugars: 'var(--honey-fill)',
  starch: 'var(--raw)',
  fibre: 'var(--leaf)',
  carbohydrate: 'var(--crumb)',
  protein: 'var(--crust)',
  fat: 'var(--yolk)',
  ash: 'var(--steel-2)',
  alcohol: 'var(--beet)',
}
</script>

<template>
  <ul class="bars">
    <li v-for="s in slices" :key="s.kind" :data-slice="s.kind">
      <span class="name">{{ s.name }}</span>
      <span class="track"
        ><i :style="{ width: `${Math.min(100, s.grams)}%`, background: fills[s.kind] }" /><em
          v-if="s.table !== undefined && Math.abs(s.table - s.grams) > 0.05"
          :style="{ left: `${Math.min(100, s.table)}%` }"
          :title="`the table says ${s.table.toFixed(1)} g`"
      /></span>
      <b>{{ s.grams.toFixed(1) }}</b>
      <span v-if="s.table !== undefined" class="was">{{ s.table.toFixed(1) }}</span>
    </li>
  </ul>
</template>

<style scoped>
.bars {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 3px;
}
li {
  display: grid;
  grid-template-columns: 132px minmax(60px, 1fr) 48px auto;
  align-items: center;
  gap: var(--s2);
  font-size: 14px;
  min-height: 24px;
}
.name {
  color: var(--ink-2);
}
.track {
  position: relative;
  height: 14px;
  background: var(--well-2);
  border-radius: 4px;
  overflow: visible;
}
.track i {
  display: block;
  height: 100%;
  border-radius: 4px;
  border: 1px solid var(--edge);
  min-width: 2px;
}
.track em {
  position: absolute;
  top: -4px;
  height: 22px;
  width: 3px;
  margin-left: -1px;
  background: var(--ink);
  border-radius: 2px;
}
b {
  text-align: right;
}
.was {
  width: 48px;
  text-align: right;
  color: var(--ink-2);
}
</style>
