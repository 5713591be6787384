<script setup lang="ts">
import { computed } from 'vue'
import { onStep, short, unbroken } from '@/parts/figures'
import { useBench } from '@/bench/bench'
import PullChoices from '@/bench/balance/PullChoices.vue'
import Icon from '@/parts/Icon.vue'
import SidePanel from '@/parts/SidePanel.vue'

const bench = useBench()
const working = computed(() => bench.sheet?.working?.find((w) => w.line === bench.why?.line && w.figure === bench.why?.figure))
const title = computed(() => {
  const { line, figure } = bench.why ?? {}
  return (
    bench.sheet?.lines.find((l) => l.id === line)?.name ?? Object.entries(bench.sheet?.gauges ?? {}).find(([k]) => k === figure)?.[1].label ?? 'Why'
  )
})
const line = computed(() => bench.sheet?.lines.find((l) => l.id === bench.why?.line))
const gauge = computed(() => Object.entries(bench.sheet?.gauges ?? {}).find(([k]) => k === bench.why?.figure)?.[1])
const pull = computed(() => gauge.value?.pull)
const written = computed(() => bench.doc?.reference?.kind === 'as_written')
const close = () => (bench.why = undefined)
</script>

<template>
  <SidePanel class="why" :title="title" @close="close">
    <p v-if="!working" class="muted">{{ bench.trouble ?? 'Working it out' }}</p>
    <template v-else>
      <div v-if="pull" class="pull well">
        <el-button :aria-label="`${title}: ${gauge?.low_text}`" :disabled="pull.at <= pull.low" @click="bench.pullOn(pull, -1)"
          ><Icon name="minus" />{{ gauge?.low_text }}</el-button
        >
        <b role="status">{{ pull.text }}</b>
        <el-button :aria-label="`${title}: ${gauge?.high_text}`" :disabled="pull.at >= pull.high" @click="bench.pullOn(pull, 1)"
          ><Icon name="plus" />{{ gauge?.high_text }}</el-button
        >
        <el-button v-if="gauge?.target !== undefined" class="home" @click="bench.pull(pull)">back to the {{ written ? 'recipe' : 'base' }}</el-button>
      </div>
      <PullChoices v-if="pull?.choices" class="choices" :pull="pull" :label="`${title}, in words`" />
      <p class="lead">{{ unbroken(working.text) }}</p>
      <p v-if="working.sum && line" class="sum well" role="math">
        <span v-for="(t, i) in working.sum" :key="t.label" class="term"
          ><b>{{ i ? (t.value < 0 ? '−' : '+') : '' }} {{ onStep(Math.abs(t.value), line.decimals) }}</b
          ><small>{{ t.label }}</small></span
        >
        <span class="is"
          ><b>= {{ onStep(line.weigh_g, line.decimals) }} g</b><small>to weigh out</small></span
        >
      </p>
      <details>
        <summary>The maths</summary>
        <p v-if="working.maths" class="rule">{{ working.maths }}</p>
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
      </details>
    </template>
  </SidePanel>
</template>

<style scoped>
.pull {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: var(--s2);
  padding: var(--s2) var(--s3);
  margin-bottom: var(--s3);
}
.pull b {
  flex: 1;
  text-align: center;
  font-size: var(--t-lead);
}
.pull .el-button {
  margin: 0;
}
.choices {
  margin-bottom: var(--s3);
}
.sum {
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: var(--s2) var(--s4);
  padding: var(--s3);
  margin-bottom: var(--s3);
}
.sum span {
  display: grid;
  justify-items: center;
  max-width: 150px;
  text-align: center;
}
.sum b {
  font-size: var(--t-figure);
  font-weight: 780;
  white-space: nowrap;
}
.sum small {
  color: var(--ink-2);
  font-size: var(--t-mini);
  line-height: 1.15;
}
summary {
  min-height: var(--touch);
  display: list-item;
  align-content: center;
  font-weight: 700;
  cursor: pointer;
}
.rule {
  padding-bottom: var(--s2);
  color: var(--ink-2);
}
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
