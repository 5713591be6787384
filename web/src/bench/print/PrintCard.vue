<script setup lang="ts">
import { computed } from 'vue'
import type { SheetLine, Variation, Worksheet } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import { onStep, unbroken } from '@/parts/figures'
import { unitsShown } from '@/parts/settings'
import { clock } from '@/parts/clock'
import { forms, places, strategies } from '@/bench/choices'
import PortionDrawing from '@/bench/portion/PortionDrawing.vue'
import { inMould, shapeOf } from '@/bench/portion/shape'

/** A card for the wall: a batch on A5 with its base and offsets, or the variation on A6; black on white. */
const props = withDefaults(
  defineProps<{ kind: 'batch' | 'variation'; doc: Variation; sheet: Worksheet; heat?: Worksheet; kitchen?: string; at: string; cups?: boolean }>(),
  {
    cups: undefined,
  },
)
const batch = computed(() => props.kind === 'batch')
const bowls = computed(() =>
  props.sheet.weigh_out
    .map((b) => ({ ...b, rows: b.lines.flatMap((id) => props.sheet.lines.find((l) => l.id === id) ?? []) }))
    .filter((b) => b.rows.length),
)
const from = (l: SheetLine) => {
  if (l.from !== 'base') return l.prepared ? `${l.prepared.label}: ${onStep(l.prepared.grams, l.decimals)} g go in` : ''
  const base = onStep(l.base_g ?? 0, l.decimals)
  return l.offset_g ? `${base} ${l.offset_g < 0 ? '−' : '+'} ${onStep(Math.abs(l.offset_g), l.decimals)}` : base
}
const cook = computed(() => props.heat?.cook)
const steps = computed(() => props.heat?.mixing ?? props.sheet.mixing)
const way = computed(() => strategies.find((s) => s.value === (props.doc.offset?.strategy ?? strategies[0]!.value))?.label)
const pulled = computed(() => Object.values(props.sheet.gauges).flatMap((g) => (g.pull && g.target !== undefined ? [g.pull.text] : [])))
const cups = computed(() => props.cups ?? unitsShown.value === 'cups')
const p = computed(() => props.sheet.portion)
const many = computed(() => forms.find((f) => f.value === props.doc.form)?.many)
const shape = computed(() => shapeOf(props.sheet))
const warnings = computed(() => props.sheet.notes.filter((n) => n.kind === 'warning'))
</script>

<template>
  <article class="paper" :class="kind" :data-print="kind">
    <header>
      <div>
        <h1>{{ doc.name }}</h1>
        <p>
          on {{ doc.base.name }} · {{ way }}<template v-for="t in pulled" :key="t"> · {{ t }}</template>
        </p>
      </div>
      <p class="makes">
        <b>{{ p.count }}</b>{{ many }}
      </p>
    </header>
    <table>
      <thead v-if="batch">
        <tr>
          <th></th>
          <th></th>
          <th class="from">base, offset</th>
          <th class="out">{{ cups ? 'measure out' : 'weigh out' }}</th>
          <th>{{ cups ? 'or weigh' : 'or measure' }}</th>
        </tr>
      </thead>
      <tbody v-for="b in bowls" :key="b.name">
        <tr v-for="(l, i) in b.rows" :key="l.id">
          <th v-if="!i" scope="rowgroup" class="bowl" :rowspan="b.rows.length">
            {{ b.name }}<small>{{ onStep(b.grams, 0) }} g</small>
          </th>
          <th scope="row"><i class="box" />{{ l.label }}</th>
          <td v-if="batch" class="from">{{ from(l) }}</td>
          <td class="out">
            <template v-if="cups && l.measure">{{ unbroken(l.measure) }}</template><template v-else
              >{{ onStep(l.weigh_g, l.decimals) }}<small> g</small></template
            >
          </td>
          <td>{{ cups && l.measure ? `${onStep(l.weigh_g, l.decimals)} g` : unbroken(l.measure) }}</td>
        </tr>
      </tbody>
    </table>
    <p class="sum">
      <b>In the bowl {{ onStep(sheet.batter.mass_g, 0) }} g</b>
      <span v-if="sheet.batter.class">pours {{ sheet.batter.class }}</span>
    </p>
    <section class="contains">
      <Icon name="allergen" :size="24" />
      <p>{{ sheet.allergen_text }}</p>
    </section>
    <div class="two">
      <section class="one">
        <PortionDrawing
          v-if="shape"
          :width-mm="shape.width"
          :length-mm="shape.length"
          :poured-mm="inMould(sheet) ? undefined : p.poured_mm"
          :size="batch ? 190 : 150"
          words="One portion, to scale"
          :drawing="p.drawing"
          :iron="inMould(sheet)" />
        <p>
          {{ p.mass_g.toFixed(0) }} g, {{ p.volume_ml.toFixed(0) }} ml each<template v-if="p.cooked_mm"
            >, {{ p.cooked_mm.toFixed(0) }} mm high</template
          >
        </p>
        <p v-if="p.load && p.inclusions?.length">load {{ (100 * p.load.volume_fraction).toFixed(0) }} %, {{ p.load.text }}</p>
        <div v-if="cook" class="heat">
          <b
            >{{ cook.griddle_text }}<template v-if="cook.dial">, dial {{ cook.dial }}</template></b
          >
          <p v-if="cook.first_side_s" class="times">
            <b>{{ clock(cook.first_side_s) }}</b><template v-if="cook.second_side_s !== undefined">
              then <b>{{ clock(cook.second_side_s) }}</b></template
            >
          </p>
          <p>{{ cook.signs_first.join(', ') }}</p>
          <p v-for="w in cook.warnings" :key="w">◆ {{ w }}</p>
        </div>
      </section>
      <section class="steps">
        <h2>Mix and cook</h2>
        <ol>
          <li v-for="m in steps" :key="m.step">{{ unbroken(m.text) }}</li>
        </ol>
      </section>
    </div>
    <ul v-if="warnings.length" class="watch">
      <li v-for="n in warnings" :key="n.code + n.line">◆ {{ n.text }}</li>
    </ul>
    <p v-if="doc.parts?.length" class="beside">
      <b>Beside the batter:</b> <span v-for="(x, i) in doc.parts" :key="i">{{ i ? '; ' : '' }}{{ x.text }} ({{ places[x.kind] }})</span>
    </p>
    <ul class="care">
      <li v-for="c in sheet.cautions" :key="c.text">{{ c.text }}</li>
    </ul>
    <p v-if="batch" class="lines"><span>spread</span><i /><span>mm, first one</span><i /><span>next time</span><i /></p>
    <footer>
      <span
        ><template v-if="kitchen">{{ kitchen }} · </template>{{ doc.name }}</span
      ><span>{{ at }}</span>
    </footer>
  </article>
</template>

<style scoped>
/* Black on white in every theme, measured in points: paper has no pixels. */
.paper {
  --ink: #000;
  --ink-2: #000;
  --ink-3: #333;
  --enamel: #fff;
  --crumb: #fff;
  --crust: #000;
  width: 132mm;
  color: #000;
  background: #fff;
  font-size: 9pt;
  line-height: 1.22;
}
.variation {
  width: 91mm;
  font-size: 7.5pt;
}
h1 {
  font-size: 18pt;
  line-height: 1.05;
  overflow-wrap: anywhere;
  hyphens: auto;
}
.variation h1 {
  font-size: 14pt;
}
h2 {
  font-size: 11pt;
  padding-bottom: 1mm;
}
header {
  display: flex;
  justify-content: space-between;
  gap: 4mm;
  align-items: flex-end;
  border-bottom: 1.5pt solid #000;
  padding-bottom: 1.5mm;
}
header > div {
  min-width: 0;
}
.makes {
  text-align: right;
  flex: none;
}
.makes b {
  display: block;
  font-size: 24pt;
  line-height: 0.95;
}
.variation .makes b {
  font-size: 17pt;
}
table {
  width: 100%;
  border-collapse: collapse;
}
thead th {
  font-weight: 400;
  font-size: 7.5pt;
}
th,
td {
  text-align: left;
  vertical-align: middle;
  padding: 0.5mm 1mm;
  overflow-wrap: anywhere;
}
tbody tr {
  border-top: 0.5pt solid #000;
  break-inside: avoid;
}
tbody {
  border-top: 1pt solid #000;
}
tbody th {
  font-weight: 700;
  font-size: 10pt;
}
.variation tbody th {
  font-size: 8pt;
}
.bowl {
  width: 16mm;
  border-right: 0.75pt solid #000;
}
tbody .bowl {
  font-size: 8pt;
}
.bowl small {
  display: block;
  font-weight: 400;
  font-size: 7.5pt;
}
.box {
  display: inline-block;
  width: 3mm;
  height: 3mm;
  border: 0.75pt solid #000;
  border-radius: 0.5mm;
  margin-right: 1.5mm;
  vertical-align: -0.4mm;
}
.from {
  text-align: right;
  white-space: nowrap;
}
.out {
  text-align: right;
  font-size: 15pt;
  font-weight: 800;
  white-space: nowrap;
  line-height: 1;
}
thead .out {
  font-size: 8pt;
  font-weight: 700;
}
.variation .out {
  font-size: 11pt;
}
.out small {
  font-size: 60%;
}
.sum {
  display: flex;
  justify-content: space-between;
  border-top: 1.5pt solid #000;
  padding: 1mm;
}
.contains {
  display: flex;
  align-items: center;
  gap: 2mm;
  border: 1.5pt solid #000;
  border-radius: 2mm;
  padding: 1.5mm 2mm;
  margin: 1mm 0;
  font-weight: 700;
  font-size: 110%;
  break-inside: avoid;
}
.two {
  display: flow-root;
}
ol {
  margin: 0;
  padding-left: 6mm;
}
li {
  padding: 0.3mm 0;
  break-inside: avoid;
}
ol li::marker {
  font-weight: 700;
}
.one {
  float: right;
  width: 44mm;
  margin: 0 0 2mm 4mm;
}
.variation .one {
  width: 32mm;
}
.one :deep(svg) {
  width: 100%;
  height: auto;
  filter: grayscale(1);
}
.heat {
  border: 0.75pt solid #000;
  border-radius: 2mm;
  padding: 1.5mm 2mm;
  margin-top: 1mm;
}
.times b {
  font-size: 15pt;
}
.watch,
.care {
  list-style: none;
  margin: 1.5mm 0 0;
  padding: 0;
}
.watch {
  font-weight: 700;
}
.care {
  columns: 2;
  column-gap: 4mm;
  font-size: 7.5pt;
  line-height: 1.15;
}
.variation .care {
  columns: 1;
}
.care li {
  break-inside: avoid;
}
.beside {
  padding-top: 1mm;
}
.lines {
  display: flex;
  gap: 1.5mm;
  align-items: flex-end;
  padding-top: 4mm;
}
.lines i {
  flex: 1;
  border-bottom: 0.75pt solid #000;
}
footer span {
  min-width: 0;
  overflow-wrap: anywhere;
}
footer {
  display: flex;
  justify-content: space-between;
  gap: 4mm;
  border-top: 0.75pt solid #000;
  margin-top: 2mm;
  padding-top: 0.7mm;
  font-size: 7.5pt;
}
</style>
