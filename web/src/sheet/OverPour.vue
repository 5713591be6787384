<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { forms } from '@/bench/choices'
import { onStep } from '@/parts/figures'
import FillDrawing from './FillDrawing.vue'
import SheetCard from './SheetCard.vue'
import { useSheet } from './sheet'

/** Too much, or spilt: the ways out beside each other, with what each would do. Nothing is changed until one is chosen. */
const props = defineProps<{ ask: Schemas['BatchAsk'] }>()
const sheet = useSheet()
const batch = computed(() => sheet.batch!)
const state = computed(() => batch.value.state)
const task = computed(() => state.value.tasks.find((t) => t.id === props.ask.task))
const many = computed(() => forms.find((f) => f.value === batch.value.plan.form)?.many ?? 'portions')
const decimals = computed(() => task.value?.decimals ?? 0)
const figure = (w: Schemas['BatchWay']) =>
  w.percent !== undefined ? `+ ${w.percent.toFixed(w.percent < 3 ? 1 : 0)} %` : w.grams !== undefined ? `− ${onStep(-w.grams, decimals.value)} g` : ''
const mm = (v: number) => `${v.toFixed(0)} mm`
const choose = (w: Schemas['BatchWay']) => sheet.tell({ kind: 'chose', task: props.ask.task, choice: w.choice }, w.lead.toLowerCase())
/** Those that change something stand as cards; leaving it is a button. */
const cards = computed(() => props.ask.ways.filter((w) => w.choice !== 'leave'))
const leave = computed(() => props.ask.ways.find((w) => w.choice === 'leave'))
const best = computed(() => props.ask.ways[0]!)
const isSpill = computed(() => props.ask.kind === 'spill')
defineExpose({ enter: () => choose(best.value) })
</script>

<template>
  <SheetCard class="over-pour" data-ask loose :back="isSpill ? 'Nothing is spilt' : 'Weigh again: a hand was on it'" @back="sheet.takeBack()">
    <header>
      <h2>
        {{ ask.label }}: <i class="sign high" /> <b>{{ onStep(ask.grams, decimals) }} g {{ isSpill ? 'gone' : 'over' }}</b
        >{{ ' ' }}<template v-if="!isSpill && task">{{ onStep(task.asks_g, decimals) }} g</template>
      </h2>
      <p v-if="ask.left_mm !== undefined && state.plan_mm !== undefined">
        Left as it is, it pours <b>{{ mm(ask.left_mm) }}</b> wide<template v-if="mm(ask.left_mm) !== mm(state.plan_mm)"
          >, not {{ mm(state.plan_mm) }}</template
        >.
      </p>
    </header>
    <div class="ways">
      <section v-for="w in cards" :key="w.choice" class="way well" :class="{ best: w === best }" :data-way="w.choice">
        <h3>
          <span>{{ w.lead }}</span><b>{{ figure(w) }}</b>
        </h3>
        <p>{{ w.text }}</p>
        <div v-if="w.fills?.length && w.choice === 'spoon_out'" class="spoons">
          <FillDrawing v-for="(f, i) in w.fills" :key="i" :fill="f" counted state="plain" :colour="task?.colour" :size="110" />
        </div>
        <table v-if="w.rows?.length">
          <tbody>
            <tr v-for="r in w.rows" :key="r.label">
              <th scope="row">{{ r.label }}</th>
              <td>{{ onStep(r.from_g, r.decimals) }} → {{ onStep(r.to_g, r.decimals) }}</td>
              <td>
                <b>{{ r.add_g < 0 ? '−' : '+' }} {{ onStep(Math.abs(r.add_g), r.decimals) }} g</b>
              </td>
            </tr>
          </tbody>
        </table>
        <dl>
          <div>
            <dt>Makes</dt>
            <dd>{{ w.count }} {{ many }}</dd>
          </div>
          <div>
            <dt>To weigh again</dt>
            <dd>{{ w.again || 'nothing' }}</dd>
          </div>
          <div v-if="w.pours_mm !== undefined">
            <dt>Pours</dt>
            <dd>{{ mm(w.pours_mm) }}</dd>
          </div>
        </dl>
        <el-button class="big" :class="{ go: w === best }" @click="choose(w)">{{ w.lead }} <kbd v-if="w === best">Enter</kbd></el-button>
      </section>
    </div>
    <template #acts>
      <el-button v-if="leave" class="big" :class="{ go: best.choice === 'leave' }" data-way="leave" @click="choose(leave)"
        >{{ leave.lead }}<template v-if="isSpill">: {{ leave.count }} {{ many }}</template> <kbd v-if="best.choice === 'leave'">Enter</kbd></el-button
      >
      <p class="muted nothing">Nothing is changed until you choose.</p>
    </template>
  </SheetCard>
</template>

<style scoped>
h2 {
  font-size: 34px;
  font-weight: 780;
  overflow-wrap: anywhere;
}
h2 b {
  color: var(--beet);
}
header p {
  font-size: 22px;
  color: var(--ink-2);
}
header p b {
  color: var(--ink);
}
.ways {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(240px, 100%), 1fr));
  gap: var(--s3);
  flex: 1;
}
.way {
  display: flex;
  flex-direction: column;
  gap: var(--s2);
  padding: var(--s4);
  font-size: var(--t-lead);
  min-width: 0;
}
.best {
  background: var(--yolk-wash);
  border: 2px solid var(--ink);
}
h3 {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  justify-content: space-between;
  gap: 0 var(--s3);
  font-size: 22px;
}
h3 b {
  font-size: 44px;
  font-weight: 800;
  line-height: 1;
  white-space: nowrap;
}
.spoons {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
}
table {
  border-collapse: collapse;
  font-size: var(--t-body);
}
th {
  font-weight: 500;
  text-align: left;
  overflow-wrap: anywhere;
}
td {
  text-align: right;
  white-space: nowrap;
  padding: 2px 0 2px var(--s2);
  color: var(--ink-2);
}
td b {
  color: var(--ink);
}
dl {
  margin: auto 0 0;
}
dl div {
  display: flex;
  justify-content: space-between;
  gap: var(--s3);
  border-top: 1.5px solid var(--edge);
  padding: 5px 0;
}
dd {
  margin: 0;
  font-weight: 700;
  text-align: right;
}
.way .el-button {
  white-space: normal;
}
.nothing {
  margin-left: auto;
}
</style>
