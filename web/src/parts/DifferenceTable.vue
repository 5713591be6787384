<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { figure, onStep } from './figures'

/** What differs between a state of then and now, line by line and gauge by gauge. */
defineProps<{ then: string; difference: Schemas['Comparison'] }>()
const words: Record<Schemas['ComparedLine']['change'], string> = { same: 'as then', more: 'more now', less: 'less now', new: 'new', gone: 'gone' }
</script>

<template>
  <table>
    <thead>
      <tr>
        <th scope="col">{{ then }}, against now</th>
        <th scope="col">then</th>
        <th scope="col">now</th>
        <th scope="col" />
      </tr>
    </thead>
    <tbody>
      <tr v-for="(l, i) in difference.lines" :key="i" :class="l.change" :data-change="l.change">
        <th scope="row">{{ l.label }}</th>
        <td>{{ l.before_g === undefined ? '' : `${onStep(l.before_g, l.decimals)} g` }}</td>
        <td>{{ l.after_g === undefined ? '' : `${onStep(l.after_g, l.decimals)} g` }}</td>
        <td class="word">{{ words[l.change] }}</td>
      </tr>
      <tr v-for="g in difference.gauges" :key="g.label" class="gauge">
        <th scope="row">{{ g.label }}</th>
        <td>{{ g.before === undefined ? '' : figure(g.before, g.decimals) }}</td>
        <td>{{ g.after === undefined ? '' : figure(g.after, g.decimals) }}</td>
        <td class="word">{{ g.unit }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  border-collapse: collapse;
  width: 100%;
  margin: var(--s4) 0;
}
th,
td {
  border-top: 1px solid var(--hair);
  padding: 6px 4px;
  text-align: right;
  white-space: nowrap;
}
th:first-child {
  text-align: left;
  white-space: normal;
  overflow-wrap: anywhere;
}
thead th {
  border: 0;
  color: var(--ink-2);
  font-size: var(--t-mini);
  font-weight: 500;
}
tbody th {
  font-weight: 600;
}
.word {
  text-align: left;
  color: var(--ink-2);
  padding-left: var(--s3);
}
tbody tr:not(.same, .gauge) td,
tbody tr:not(.same, .gauge) th {
  background: var(--yolk-wash);
  font-weight: 700;
}
.gauge th {
  font-weight: 450;
  color: var(--ink-2);
}
</style>
