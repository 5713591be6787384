<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Worksheet } from '@/api/client'
import { useBench } from '@/bench/bench'
import { learnPlate, type PieceVerdict } from '@/kitchen/firstPiece'
import { useKitchen } from '@/kitchen/kitchen'
import { useHeat, type Cook } from './heat'
import { clock } from '@/parts/clock'

const props = defineProps<{ sheet: Worksheet; cook: Cook }>()
const bench = useBench()
const heat = useHeat()
const kitchen = useKitchen()

const bars = computed(() => {
  const mine = { name: 'This batter', at: props.cook.griddle_text, first: props.cook.first_side_s, second: props.cook.second_side_s ?? 0, mine: true }
  const b = props.cook.base
  if (!b) return []
  const base = { name: bench.doc?.base.name ?? 'The base', at: b.griddle_text, first: b.first_side_s, second: b.second_side_s ?? 0, mine: false }
  const most = Math.max(mine.first + mine.second, base.first + base.second, 1)
  return [base, mine].map((x) => ({ ...x, a: `${(100 * x.first) / most}%`, b: `${(100 * x.second) / most}%` }))
})
const griddle = computed(() => kitchen.own?.griddles?.find((g) => g.id === props.cook.plate_id))
const busy = ref(false)
const verdicts: { value: PieceVerdict; label: string }[] = [
  { value: 'good', label: 'good' },
  { value: 'pale', label: 'pale' },
  { value: 'dark', label: 'dark' },
  { value: 'raw', label: 'raw inside' },
]

/** The first one cooked puts the plate right. */
async function tell(verdict: PieceVerdict) {
  if (!griddle.value) return
  busy.value = true
  await learnPlate(griddle.value, verdict, bench.work)
  busy.value = false
}
</script>

<template>
  <section class="panel reasons" aria-label="Why so hot and so long">
    <header><h2>Why so</h2></header>
    <div class="in">
      <p v-for="w in cook.warnings" :key="w" class="warn" role="alert"><i class="sign high" />{{ w }}</p>
      <div v-if="bars.length" class="bars">
        <h3>Against its base</h3>
        <div v-for="b in bars" :key="b.name" class="bar" :class="{ mine: b.mine }">
          <p>
            <span>{{ b.name }}</span><b>{{ b.at }}</b>
          </p>
          <div class="row">
            <i :style="{ width: b.a }">{{ clock(b.first) }}</i><i v-if="b.second" class="second" :style="{ width: b.b }">{{ clock(b.second) }}</i>
          </div>
        </div>
      </div>
      <ul>
        <li v-for="r in cook.reasons" :key="r">{{ r }}</li>
        <li v-if="cook.turn && cook.turn.how !== 'one_turner'">{{ cook.turn.text }}</li>
      </ul>
      <div v-if="griddle" class="first">
        <h3>How was the first one?</h3>
        <div class="verdicts">
          <el-button v-for="v in verdicts" :key="v.value" :disabled="busy" @click="tell(v.value)">{{ v.label }}</el-button>
        </div>
        <small>It puts {{ griddle.name }} right for the next ones.</small>
      </div>
      <p v-else class="muted">{{ cook.first_piece }}</p>
      <p class="muted safe">{{ cook.safe }}. {{ cook.probe }}</p>
      <el-button v-if="cook.given" class="advised" @click="heat.setPlate()">Back to the advised heat</el-button>
    </div>
  </section>
</template>

<style scoped>
.reasons {
  display: flex;
  flex-direction: column;
  overflow: hidden auto;
}
.in {
  display: grid;
  gap: var(--s3);
  padding: var(--s2) var(--s4) var(--s4);
  align-content: start;
}
h3 {
  font-size: var(--t-body);
}
.warn {
  display: flex;
  gap: var(--s2);
  align-items: baseline;
  padding: var(--s2) var(--s3);
  border-radius: var(--r-ctl);
  background: var(--beet-wash);
  color: var(--ink);
  font-size: 14px;
}
.bars {
  display: grid;
  gap: var(--s2);
}
.bar p {
  display: flex;
  justify-content: space-between;
  gap: var(--s2);
  font-size: 14px;
  color: var(--ink-2);
}
.bar p span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.bar.mine p {
  color: var(--ink);
  font-weight: 700;
}
.row {
  display: flex;
}
.row i {
  font-style: normal;
  font-weight: 750;
  padding: 2px 6px;
  background: var(--well-2);
  border: 1.5px solid var(--edge);
  border-radius: 6px 0 0 6px;
  overflow: hidden;
}
.row i:last-child {
  border-radius: 0 6px 6px 0;
}
.row .second {
  border-left: 0;
  background: var(--well);
}
.mine .row i {
  background: var(--yolk);
  color: var(--on-yolk);
  border-color: var(--ink);
}
.mine .row .second {
  background: var(--yolk-wash);
  color: var(--ink);
}
ul {
  margin: 0;
  padding-left: var(--s4);
  font-size: 14px;
  line-height: 1.3;
}
li {
  padding: 2px 0;
}
.verdicts {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--s2);
  margin: var(--s1) 0;
}
.verdicts .el-button {
  margin: 0;
}
.safe::first-letter {
  text-transform: uppercase;
}
small,
.muted {
  font-size: var(--t-mini);
  color: var(--ink-2);
}
</style>
