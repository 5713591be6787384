<script setup lang="ts">
import { ask } from '@/parts/ask'
import { computed, ref, watch } from 'vue'
import { said, type Schemas, type Worksheet } from '@/api/client'
import { useBench } from '@/bench/bench'
import { ladleStrip } from '@/bench/balance/strip'
import AmountField from '@/parts/AmountField.vue'
import PortionDrawing from './PortionDrawing.vue'

const shown = defineModel<boolean>({ required: true })
const props = defineProps<{ sheet: Worksheet; shape?: { width: number; length?: number }; waffle: boolean }>()
const bench = useBench()
const p = computed(() => props.sheet.portion)
const inclusions = computed(() => p.value.inclusions ?? [])
const trouble = ref('')
const bites = ref<Record<string, number>>({})
const pieces = ref<Record<string, number>>({})
const uses = ref<Record<string, number>>({})
const simulated = ref<Schemas['Simulation']>()
watch(
  shown,
  (open) => {
    if (!open) return
    trouble.value = ''
    simulated.value = undefined
    for (const x of inclusions.value) {
      bites.value[x.line] = 8
      pieces.value[x.line] = Math.max(1, Math.round(x.pieces_mean))
      uses.value[x.line] = Math.round(props.sheet.lines.find((l) => l.id === x.line)?.weigh_g ?? 0)
    }
  },
  { immediate: true },
)

// What was simulated belongs to the bowl that was there then.
watch(
  () => props.sheet,
  () => (simulated.value = undefined),
)

/** The program answers what the load has to be. */
async function fit(line: string, wish: { bite_share?: number; pieces_each?: number }) {
  trouble.value = ''
  try {
    if (!bench.doc) return
    const { amount_g } = await ask('/loads', { variation: bench.doc, line, ...wish })
    bench.changeAddition(line, { amount: amount_g, unit: 'g' })
  } catch (e) {
    trouble.value = said(e)
  }
}
async function simulate() {
  trouble.value = ''
  try {
    if (!bench.doc) return
    simulated.value = await ask('/simulations', { variation: bench.doc, bowls: 1000, seed: 1 })
  } catch (e) {
    trouble.value = said(e)
  }
}
const shares = [
  { value: 1, label: 'all portions' },
  { value: 0.5, label: 'half of them' },
  { value: 1 / 3, label: 'a third' },
  { value: 0.25, label: 'a quarter' },
]
const percent = (v: number) => (v > 0 && v < 0.01 ? 'under 1 %' : `${(100 * v).toFixed(0)} %`)
const columns = (x: Schemas['Inclusion']) => x.histogram ?? []
const tallest = (v: number[]) => Math.max(...v, 1e-9)
</script>

<template>
  <el-dialog v-model="shown" title="One portion, and all of them" width="min(940px, 96vw)" append-to-body class="portion-view">
    <p v-if="trouble" class="trouble" role="alert"><i class="sign high" />{{ trouble }}</p>
    <div class="cols">
      <div>
        <PortionDrawing
          v-if="shape"
          :size="380"
          :width-mm="shape.width"
          :length-mm="shape.length"
          :poured-mm="waffle ? undefined : p.poured_mm"
          words="One portion to scale, larger"
          :colour="sheet.batter.colour?.hex"
          :drawing="p.drawing"
          :on="sheet.served?.drawn"
          :iron="waffle" />
        <p v-if="p.drawing && p.drawing.drawn_share < 1" class="muted">One piece in {{ (1 / p.drawing.drawn_share).toFixed(0) }} is drawn.</p>
        <p v-if="inclusions.filter((x) => x.placing === 'folded').length > 1" class="many">
          <el-button @click="simulate">Ladle a thousand bowls</el-button>
          <span v-if="simulated">{{ percent(simulated.any_none) }} of the portions get none of any kind.</span>
        </p>
      </div>
      <div class="kinds">
        <section v-for="x in inclusions" :key="x.line" class="well kind" :data-kind="x.ingredient">
          <h3><i :style="{ background: x.colour }" />{{ x.label }}, {{ x.placing === 'folded' ? 'folded in' : 'laid on' }}</h3>
          <p class="sum">
            <b>{{ x.pieces_mean.toFixed(1) }}</b> each<template v-if="x.share_of_bowl < 1"> of the portions that get it</template>, most get
            <b>{{ x.pieces_p10 }}–{{ x.pieces_p90 }}</b
            >; <b>{{ percent(x.bite_share) }}</b> of the bites meet one; none at all in <b>{{ percent(x.chance_none) }}</b><template
              v-if="x.chance_fewer !== undefined"
              >, fewer than {{ x.fewer_than }} in <b>{{ percent(x.chance_fewer) }}</b></template
            ><template v-if="x.cover"
              >; covers <b>{{ percent(x.cover) }}</b></template
            >.
          </p>
          <div class="charts">
            <figure>
              <svg viewBox="0 0 200 58" role="img" :aria-label="`Portions by number of ${x.label}`">
                <rect
                  v-for="(v, k) in columns(x)"
                  :key="k"
                  :x="(k * 200) / columns(x).length + 0.5"
                  :width="Math.max(1, 200 / columns(x).length - 1)"
                  :y="44 - (42 * v) / tallest(columns(x))"
                  :height="(42 * v) / tallest(columns(x))"
                  fill="var(--rim)" />
                <path d="M0 44.500h200" stroke="var(--ink)" />
                <text x="0" y="57" font-size="12" fill="var(--ink-2)">{{ x.histogram_from }}</text>
                <text x="200" y="57" font-size="12" text-anchor="end" fill="var(--ink-2)">
                  {{ x.histogram_from + columns(x).length * (x.histogram_step ?? 1) - 1 }}
                </text>
              </svg>
              <figcaption>pieces in a portion</figcaption>
            </figure>
            <figure>
              <svg viewBox="0 0 200 58" role="img" :aria-label="`Pieces of ${x.label} from the first ladle to the last`">
                <rect
                  v-for="(v, k) in ladleStrip(x.first_to_last ?? [])"
                  :key="k"
                  :x="(k * 200) / ladleStrip(x.first_to_last ?? []).length + 0.5"
                  :width="200 / ladleStrip(x.first_to_last ?? []).length - 1"
                  :y="44 - (42 * v) / tallest(x.first_to_last ?? [])"
                  :height="(42 * v) / tallest(x.first_to_last ?? [])"
                  :fill="x.sinks || x.floats ? 'var(--beet)' : 'var(--leaf)'" />
                <path d="M0 44.500h200" stroke="var(--ink)" />
                <text x="0" y="57" font-size="12" fill="var(--ink-2)">first ladle</text>
                <text x="200" y="57" font-size="12" text-anchor="end" fill="var(--ink-2)">last</text>
              </svg>
              <figcaption>
                {{ x.sinks ? 'sinks: the last get most' : x.floats ? 'floats: the first get most' : 'stays put: all get the same' }}
              </figcaption>
            </figure>
          </div>
          <div class="asks">
            <span
              >a piece in <AmountField v-model="bites[x.line]" :limits="{ low: 1, high: 9 }" :label="`Bites in ten with ${x.label}`" /> of 10 bites
              <el-button @click="fit(x.line, { bite_share: (bites[x.line] ?? 8) / 10 })">Set</el-button></span
            >
            <span
              ><AmountField v-model="pieces[x.line]" :limits="{ low: 1, high: 500 }" :label="`Pieces of ${x.label} in each`" /> each
              <el-button @click="fit(x.line, { pieces_each: pieces[x.line] })">Set</el-button></span
            >
            <span v-if="!waffle || x.placing === 'folded'"
              >in
              <el-select
                :model-value="shares.find((h) => Math.abs(h.value - x.share_of_bowl) < 0.01)?.value ?? 1"
                class="share"
                :aria-label="`Portions that get ${x.label}`"
                @update:model-value="bench.changeAddition(x.line, { share_of_bowl: $event })">
                <el-option v-for="h in shares" :key="h.label" :value="h.value" :label="h.label" />
              </el-select>
            </span>
            <span
              >use up
              <AmountField v-model="uses[x.line]" class="much" unit="g" :ingredient="x.ingredient" :label="`Grams of ${x.label} to use up`" /> g
              <el-button @click="bench.changeAddition(x.line, { amount: uses[x.line] ?? 0, unit: 'g' })">Set</el-button></span
            >
          </div>
        </section>
      </div>
    </div>
  </el-dialog>
</template>

<style scoped>
.cols {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: var(--s4);
}
.kinds {
  display: grid;
  gap: var(--s3);
  align-content: start;
  max-height: 68vh;
  overflow: auto;
}
.kind {
  padding: var(--s3);
  display: grid;
  gap: var(--s2);
}
h3 {
  display: flex;
  gap: var(--s2);
  align-items: center;
  font-size: var(--t-lead);
}
h3 i {
  width: 12px;
  height: 12px;
  border-radius: 50%;
  border: 1px solid var(--edge);
}
.sum {
  line-height: 1.35;
}
.charts {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--s3);
}
figure {
  margin: 0;
}
figure svg {
  width: 100%;
  display: block;
}
figcaption {
  font-size: var(--t-mini);
  color: var(--ink-2);
}
.asks {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2) var(--s4);
}
.asks span {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
.asks .much,
.asks .amount-field {
  width: 62px;
}
.asks .amount-field :deep(.el-input__wrapper) {
  padding: 0 var(--s1);
}
.share {
  width: 150px;
}
.many {
  display: grid;
  gap: var(--s2);
  justify-items: start;
  margin-top: var(--s3);
  max-width: 340px;
}
.trouble {
  color: var(--beet);
  display: flex;
  gap: var(--s2);
  align-items: center;
  padding-bottom: var(--s2);
}
.cols :deep(svg) {
  max-width: 100%;
  height: auto;
}
@media (max-width: 900px) {
  .cols {
    grid-template-columns: minmax(0, 1fr);
  }
  .kinds {
    max-height: none;
  }
}
@media (max-width: 560px) {
  .charts {
    grid-template-columns: 1fr;
  }
}
</style>
