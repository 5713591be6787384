<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { figure } from './figures'

/** Properties of an ingredient, beside the table's values where they are the cook's. */
defineProps<{ figures: Schemas['ShownFigure'][]; own: string; table?: string }>()
</script>

<template>
  <table class="figures">
    <thead v-if="table">
      <tr>
        <th><span class="vh">Property</span></th>
        <th scope="col">{{ own }}</th>
        <th scope="col" class="was">the table</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="f in figures" :key="f.name">
        <th scope="row">
          {{ f.name }} <small>{{ f.unit }}</small>
        </th>
        <td>{{ figure(f.value, f.decimals) }}</td>
        <td v-if="table" class="was">{{ f.table === undefined ? '' : figure(f.table, f.decimals) }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.figures {
  border-collapse: collapse;
  width: 100%;
  font-size: 14px;
}
th {
  text-align: left;
  font-weight: 500;
  padding: 3px var(--s2) 3px 0;
}
thead th {
  color: var(--ink-2);
  font-size: var(--t-mini);
  text-align: right;
  vertical-align: bottom;
}
td {
  text-align: right;
  font-weight: 750;
  padding: 3px 0 3px var(--s2);
  white-space: nowrap;
}
.was {
  color: var(--ink-2);
  font-weight: 500;
}
small {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
tbody tr + tr {
  border-top: 1px solid var(--hair);
}
</style>
