<script setup lang="ts">
import { computed } from 'vue'
import { short } from '@/parts/figures'
import { useBench } from '@/bench/bench'

const bench = useBench()
const working = computed(() => bench.sheet?.working?.find((w) => w.line === bench.why?.line && w.figure === bench.why?.figure))
const title = computed(() => {
  const { line, figure } = bench.why ?? {}
  return (
    bench.sheet?.lines.find((l) => l.id === line)?.name ?? Object.entries(bench.sheet?.gauges ?? {}).find(([k]) => k === figure)?.[1].label ?? 'Why'
  )
})
const shown = computed({
  get: () => !!working.value,
  set: (v) => {
    if (!v) bench.why = undefined
  },
})
</script>

<template>
  <el-dialog v-model="shown" :title="title" width="min(720px, 96vw)" class="why">
    <template v-if="working">
      <p class="lead">{{ working.text }}</p>
      <table>
        <tbody>
          <tr v-for="(t, i) in working.terms" :key="i">
            <th scope="row">{{ t.name }}</th>
            <td class="value">{{ short(t.value) }}</td>
            <td class="unit">{{ t.unit }}</td>
            <td class="source">{{ t.source }}</td>
          </tr>
        </tbody>
      </table>
    </template>
  </el-dialog>
</template>

<style scoped>
.lead {
  font-size: var(--t-lead);
  padding-bottom: var(--s3);
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  border-top: 1px solid var(--hair);
  padding: 5px 4px;
  font-size: var(--t-body);
  line-height: 1.2;
  text-align: left;
  vertical-align: baseline;
}
th {
  font-weight: 600;
}
.value {
  text-align: right;
  padding-left: var(--s3);
  font-weight: 750;
  white-space: nowrap;
}
.unit {
  white-space: nowrap;
  color: var(--ink-2);
}
.source {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
</style>
