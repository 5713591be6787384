<script setup lang="ts">
import { computed, ref } from 'vue'
import { useMediaQuery } from '@vueuse/core'
import type { SheetLine, Worksheet } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import type { IconName } from '@/parts/icons'
import { onStep, unbroken } from '@/parts/figures'
import { unitsShown } from '@/parts/settings'
import { useBench } from '@/bench/bench'
import { stages } from '@/bench/choices'
import OffsetPicker from './OffsetPicker.vue'
import RowMenu from './RowMenu.vue'
import { useEverOpen } from '@/parts/everOpen'
import { later } from '@/parts/later'

const WaysDialog = later(() => import('@/bench/dialogs/WaysDialog.vue'))
const HoldsDialog = later(() => import('@/bench/dialogs/HoldsDialog.vue'))

const props = defineProps<{ sheet: Worksheet; active?: string; asked?: string; stale: boolean }>()
const emit = defineEmits<{ pick: [id: string]; make: [] }>()
const bench = useBench()
const wide = useMediaQuery('(min-width: 1200px)')
const phone = useMediaQuery('(max-width: 700px)')
/** The whole list by the bowl that it goes into: the base's lines and the additions. */
const bowls = computed(() =>
  props.sheet.weigh_out
    .map((b) => ({ ...b, rows: b.lines.flatMap((id) => props.sheet.lines.find((l) => l.id === id) ?? []) }))
    .filter((b) => b.rows.length),
)
const stageOf = (l: SheetLine) => stages.find((s) => s.value === l.stage)?.label
const holdsOpen = ref(false)
const waysOpen = ref(false)
const everHolds = useEverOpen(holdsOpen)
const everWays = useEverOpen(waysOpen)
const why = (line: string) => (bench.why = { line })

const matter: Record<string, { icon: IconName; tone: string }> = {
  liquid: { icon: 'drop', tone: 'water' },
  sugar: { icon: 'cube', tone: 'honey' },
  flour: { icon: 'grain', tone: 'rim' },
}
const look = (l: SheetLine) => matter[l.role] ?? { icon: 'rise' as IconName, tone: 'rim' }
const changed = (l: SheetLine) => l.offset_g !== undefined && l.offset_g !== 0
const offsetText = (l: SheetLine) => `${(l.offset_g ?? 0) < 0 ? 'hold back' : 'add'} ${onStep(Math.abs(l.offset_g ?? 0), l.decimals)} g`
const cups = computed(() => unitsShown.value === 'cups')
const early = computed(() => {
  const now = props.sheet.batter.pours?.[0]?.class
  return now && now !== props.sheet.batter.class ? now : undefined
})
</script>

<template>
  <section class="panel ledger" :class="{ stale }" aria-label="Weigh-out list">
    <div class="how">
      <h2>Weigh out</h2>
      <OffsetPicker />
      <template v-if="!wide">
        <el-button class="tool" @click="holdsOpen = true">Match the base</el-button>
        <el-button class="tool" @click="waysOpen = true">Compare</el-button>
      </template>
    </div>
    <div class="scroll">
      <table>
        <thead>
          <tr>
            <th scope="col"><span class="vh">bowl</span></th>
            <th scope="col" class="what">In the batter</th>
            <th scope="col" class="narrow">base</th>
            <th scope="col" class="left">offset</th>
            <th scope="col">{{ cups ? 'measure out' : 'weigh out' }}</th>
            <th v-if="wide" scope="col" class="left small">{{ cups ? 'or weigh' : 'or measure' }}</th>
            <th scope="col"><span class="vh">pin</span></th>
          </tr>
        </thead>
        <tbody v-for="b in bowls" :key="b.name" class="bowl">
          <tr
            v-for="(l, i) in b.rows"
            :key="l.id"
            :data-line="l.from === 'base' ? l.ingredient : undefined"
            :data-added="l.from === 'base' ? undefined : l.ingredient"
            :class="{ hot: l.id === active, asked: l.id === asked, changed: changed(l), added: l.from !== 'base' }"
            @click="emit('pick', l.id)">
            <th v-if="!i" scope="rowgroup" class="bowl-name" :rowspan="b.rows.length">
              <span>{{ b.name }}</span><small>{{ onStep(b.grams, 0) }} g</small>
            </th>
            <th scope="row" class="what" :class="{ long: l.label.length > 15, longer: l.label.length > 28 }" :title="l.name">
              <i v-if="l.from !== 'base'" :style="{ background: l.colour }" />{{ l.label
              }}<small v-if="!wide" class="measure">{{ cups ? `${onStep(l.weigh_g, l.decimals)} g` : unbroken(l.measure) }}</small
              ><small v-if="l.as_read" class="doubt"><i class="sign unknown" />for “{{ l.as_read }}”</small>
            </th>
            <td class="narrow muted">{{ l.base_g === undefined ? '' : onStep(l.base_g, l.decimals) }}</td>
            <td v-if="l.from !== 'base'" class="left off">
              <span class="none">{{ l.prepared ? `${l.prepared.label}: ${onStep(l.prepared.grams, l.decimals)} g go in` : stageOf(l) }}</span>
            </td>
            <td v-else class="left off">
              <button v-if="changed(l)" type="button" class="why-chip" :aria-label="`${offsetText(l)}. Why?`" @click.stop="why(l.id)">
                <span class="chip" :class="look(l).tone"><Icon :name="look(l).icon" :size="15" />{{ offsetText(l) }}</span>
              </button>
              <span v-else-if="l.state === 'pinned'" class="none">pinned</span>
              <span v-else-if="l.state !== 'stuck'" class="none">as it is</span>
              <span v-if="l.state === 'stuck'" class="stuck"><i class="sign high" />{{ changed(l) ? 'no more to give' : 'nothing to give' }}</span>
            </td>
            <td v-if="cups" class="out words">
              {{ unbroken(l.measure) }}<small v-if="!l.measure">{{ onStep(l.weigh_g, l.decimals) }} g</small>
            </td>
            <td v-else class="out">{{ onStep(l.weigh_g, l.decimals) }} <small>g</small></td>
            <td v-if="wide" class="left small">{{ cups ? `${onStep(l.weigh_g, l.decimals)} g` : unbroken(l.measure) }}</td>
            <td class="pin"><RowMenu v-if="l.from === 'base'" :id="l.id" :label="l.label" :pinned="l.state === 'pinned'" :doubt="!!l.as_read" /></td>
          </tr>
        </tbody>
      </table>
    </div>
    <div class="sum">
      <span class="adds"
        >In the bowl <b>{{ onStep(sheet.batter.mass_g, 0) }} g</b
        ><small
          >{{ onStep(sheet.batter.base_g, 0) }} {{ sheet.batter.offset_g < 0 ? '−' : '+' }} {{ onStep(Math.abs(sheet.batter.offset_g), 0) }} +
          {{ onStep(sheet.batter.added_g, 0) }} added</small
        ></span
      >
      <span v-if="sheet.batter.class" class="end"
        >pours <b>{{ sheet.batter.class }}</b><template v-if="early">, {{ early }} just mixed</template></span
      >
      <template v-if="wide">
        <el-button class="tool" :class="{ end: !sheet.batter.class }" @click="holdsOpen = true">Match the base</el-button>
        <el-button class="tool" @click="waysOpen = true">Compare</el-button>
      </template>
      <el-button v-else-if="phone" class="go" :class="{ end: !sheet.batter.class }" @click="emit('make')">Make this</el-button>
    </div>
    <HoldsDialog v-if="everHolds" v-model="holdsOpen" />
    <WaysDialog v-if="everWays" v-model="waysOpen" />
  </section>
</template>

<style scoped>
.ledger {
  display: flex;
  flex-direction: column;
  padding: 6px var(--s3) 0;
}
.how {
  display: flex;
  align-items: center;
  gap: var(--s3);
  padding-bottom: 2px;
}
.how h2 {
  white-space: nowrap;
  font-size: var(--t-lead);
  margin-right: auto;
  padding-left: var(--s1);
}
.scroll {
  overflow: hidden auto;
  flex: 0 1 auto;
  min-height: 120px;
}
table {
  border-collapse: collapse;
  width: 100%;
}
thead th {
  position: sticky;
  top: 0;
  background: var(--enamel);
  font-size: var(--t-mini);
  font-weight: 500;
  color: var(--ink-2);
  text-align: right;
  padding: 0 6px;
  height: 24px;
  white-space: nowrap;
  z-index: 1;
}
thead th.what,
tbody th {
  text-align: left;
}
thead th.left {
  text-align: left;
  padding-left: 14px;
}
tbody th {
  font-weight: 650;
  font-size: var(--t-body);
  padding: 0 0 0 var(--s1);
  line-height: 1.1;
}
tbody th.long {
  font-size: 14px;
}
tbody th.longer {
  font-size: 13px;
}
tbody th.what {
  overflow-wrap: anywhere;
  hyphens: auto;
}
.doubt {
  display: block;
  color: var(--beet);
  font-size: var(--t-mini);
  font-weight: 500;
}
.doubt .sign {
  display: inline-block;
  width: 9px;
  height: 9px;
  margin-right: 5px;
}
th.what > i {
  display: inline-block;
  width: 11px;
  height: 11px;
  margin: 0 6px 0 0;
  float: left;
  border-radius: 50%;
  border: 1px solid var(--edge);
  translate: 0 3px;
}
th.bowl-name {
  width: 62px;
  padding: var(--s1);
  text-align: center;
  vertical-align: middle;
  font-size: var(--t-mini);
  background: var(--well);
  border: 2px solid var(--enamel);
  border-radius: var(--r-well);
}
th.bowl-name span,
th.bowl-name small {
  display: block;
}
th.bowl-name small {
  font-weight: 500;
  font-size: var(--t-mini);
  color: var(--ink-2);
  white-space: nowrap;
}
tbody th,
td {
  height: 44px;
  border-top: 1px solid var(--hair);
}
td {
  padding: 0 6px;
  text-align: right;
  white-space: nowrap;
  font-size: var(--t-body);
}
.narrow {
  width: 44px;
}
thead th.narrow {
  padding: 0 3px;
}
td.narrow {
  padding: 0 4px;
}
td b {
  color: var(--ink);
}
td.left {
  text-align: left;
}
td.off {
  padding-left: var(--s2);
}
.chip {
  min-height: 32px;
  font-size: 14px;
}
.why-chip {
  min-height: var(--touch);
  padding: 0;
  border: 0;
  border-radius: var(--s2);
  background: none;
  cursor: pointer;
}
.off:has(.stuck) .why-chip {
  margin: -8px 0;
}
.stuck {
  display: flex;
  align-items: center;
  gap: 5px;
  color: var(--beet);
  font-size: var(--t-mini);
  font-weight: 600;
  line-height: 1;
  padding: 3px 0 2px 10px;
}
.stuck .sign {
  width: 9px;
  height: 9px;
}
.off:has(.stuck) .chip {
  min-height: 24px;
}
.none {
  color: var(--ink-3);
  padding-left: var(--s2);
  font-size: 14px;
}
td.out {
  font-size: var(--t-figure);
  font-weight: 780;
  letter-spacing: -0.01em;
}
td.out small {
  font-size: var(--t-body);
  font-weight: 500;
  letter-spacing: 0;
  margin-left: -2px;
}
td.out.words {
  font-size: var(--t-lead);
  white-space: normal;
  line-height: 1.1;
}
td.small {
  font-size: 14px;
  white-space: normal;
  line-height: 1.15;
  padding-left: 10px;
}
td.pin {
  width: var(--touch);
  padding: 0;
}
td.pin :deep(.el-button) {
  display: flex;
}
tr.hot th.what,
tr.hot td {
  background: var(--yolk-wash);
  border-top-color: var(--ink);
  border-bottom: 1px solid var(--ink);
}
tr.asked th.what,
tr.asked td {
  background: var(--rim-wash);
  border-top-color: var(--rim);
  border-bottom: 1px solid var(--rim);
}
.stale td.out,
.stale td b {
  color: var(--ink-3);
}
.sum {
  border-top: 2px solid var(--ink);
  display: flex;
  align-items: center;
  gap: var(--s2);
  padding: 0 var(--s1);
  min-height: 50px;
  margin-top: auto;
}
.adds b {
  white-space: nowrap;
}
.adds small {
  display: block;
  font-size: var(--t-mini);
  color: var(--ink-2);
  white-space: nowrap;
}
.tool {
  padding: 0 var(--s2);
  font-size: 14px;
  flex: none;
}
.sum .end + .tool {
  margin-left: 0;
}
.sum .end {
  margin-left: auto;
}
/* Wide: twelve rows in sight. */
@media (min-width: 1200px) {
  tbody th.what,
  td {
    height: 41px;
  }
  .why-chip,
  td.pin :deep(.el-button) {
    margin: -2px 0;
  }
  .scroll {
    padding-bottom: 4px;
  }
}
@media (max-width: 1199px) {
  .measure {
    display: block;
    padding-top: 2px;
    font-size: var(--t-mini);
    font-weight: 400;
    color: var(--ink-2);
  }
  td.out {
    font-size: 32px;
  }
  .scroll {
    overflow: visible;
  }
  .sum {
    flex-wrap: wrap;
  }
}
/* Phone: two lines a row: the name over its offset and measure, the weigh-out beside both. */
@media (max-width: 700px) {
  .ledger {
    padding: 6px 6px 0;
  }
  .how {
    gap: var(--s1);
  }
  .how h2,
  thead,
  .narrow {
    display: none;
  }
  .how .tool {
    padding: 0 6px;
  }
  .scroll {
    overflow: hidden auto;
    flex: 1 1 0;
  }
  table,
  tbody {
    display: block;
  }
  tr {
    display: grid;
    grid-template: 'bowl bowl bowl' auto 'name out pin' auto 'off out pin' auto / minmax(0, 1fr) auto var(--touch);
    align-items: center;
    border-top: 1px solid var(--hair);
    padding: 2px 0;
  }
  tbody th.what,
  td,
  tr.hot th.what,
  tr.hot td,
  tr.asked th.what,
  tr.asked td {
    height: auto;
    border: 0;
  }
  tbody th.what {
    grid-area: name;
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0 var(--s2);
    overflow-wrap: anywhere;
  }
  th.what > i {
    margin: 0;
    float: none;
    translate: none;
    align-self: center;
  }
  .measure {
    padding: 0;
  }
  tbody th.bowl-name {
    grid-area: bowl;
    width: auto;
    display: flex;
    justify-content: space-between;
    height: auto;
    text-align: left;
    padding: 3px var(--s2);
    margin-bottom: 2px;
  }
  td.out {
    grid-area: out;
    font-size: 29px;
  }
  td.out.words {
    max-width: 150px;
  }
  td.off {
    grid-area: off;
    padding-left: 0;
    white-space: normal;
  }
  td.off .none {
    padding-left: var(--s1);
    font-size: var(--t-mini);
  }
  td.off .chip {
    min-height: 24px;
  }
  td.off .why-chip {
    margin: -10px 0;
  }
  td.pin {
    grid-area: pin;
  }
  tr.hot {
    background: var(--yolk-wash);
  }
  tr.asked {
    background: var(--rim-wash);
  }
}
@media (max-width: 700px) {
  .sum {
    flex-wrap: nowrap;
  }
  .adds {
    flex: 1;
  }
  .sum > span.end {
    max-width: 84px;
    font-size: var(--t-mini);
    text-align: right;
    line-height: 1.15;
  }
  .adds small {
    white-space: normal;
  }
}
@media (max-width: 700px) and (max-height: 620px) {
  .scroll {
    overflow: visible;
    flex: none;
  }
}
</style>
