<script setup lang="ts">
import { computed, ref } from 'vue'
import { useMediaQuery } from '@vueuse/core'
import { say } from '@/parts/say'
import type { Worksheet } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import StepButton from '@/parts/StepButton.vue'
import { useKitchen } from '@/kitchen/kitchen'
import { useBench } from '@/bench/bench'
import PullChoices from '@/bench/balance/PullChoices.vue'
import HeatCard from '@/bench/heat/HeatCard.vue'
import LadlePicker from './LadlePicker.vue'
import LoadMeter from './LoadMeter.vue'
import PortionDrawing from './PortionDrawing.vue'
import SpreadRow from './SpreadRow.vue'
import { inMould, shapeOf } from './shape'
import { useEverOpen } from '@/parts/everOpen'
import { later } from '@/parts/later'

const PortionDialog = later(() => import('./PortionDialog.vue'))
const ScaleDialog = later(() => import('@/bench/dialogs/ScaleDialog.vue'))

const props = defineProps<{ sheet: Worksheet }>()
const wide = useMediaQuery('(min-width: 1200px)')
const phone = useMediaQuery('(max-width: 700px)')
const bench = useBench()
const kitchen = useKitchen()
if (!kitchen.own) void kitchen.load()
const p = computed(() => props.sheet.portion)
const plate = computed(() => props.sheet.plate)
const waffle = computed(() => inMould(props.sheet))
const shape = computed(() => shapeOf(props.sheet))
const inclusions = computed(() => p.value.inclusions ?? [])
const loaded = computed(() => inclusions.value.find((x) => x.placing === 'folded') ?? inclusions.value[0])
const scaleOpen = ref(false)
const viewOpen = ref(false)
const everScale = useEverOpen(scaleOpen)
const everView = useEverOpen(viewOpen)
/** Steps that are still to be asked for: a held button steps on, and one question at a time is under way. */
const wanted = ref<number>()
async function toCount(by: number) {
  const under = wanted.value !== undefined
  wanted.value = Math.max(1, (wanted.value ?? bench.doc?.portion?.count ?? p.value.count) + by)
  if (under) return
  try {
    let asked: number | undefined
    while (asked !== wanted.value) {
      asked = wanted.value
      const said = await bench.scale({ count: asked })
      if (said.length) say({ message: said.join(' '), duration: 6000, grouping: true })
    }
  } catch (e) {
    say((e as Error).message)
  } finally {
    wanted.value = undefined
  }
}
const words = computed(
  () =>
    `One portion to scale: ${shape.value?.width.toFixed(0)} mm across${p.value.poured_mm ? `, ${p.value.poured_mm.toFixed(1)} mm thick when poured` : ''}`,
)
const each = (n: number) => (n < 10 ? n.toFixed(1).replace(/\.0$/, '') : n.toFixed(0))

/** What the recipe claims of itself, in short; as it stood when there is no figure in it. */
const claims = computed(() => {
  const s = bench.doc?.said
  const figures = [s?.count && `makes ${s.count}`, s?.volume_ml && `${s.volume_ml.toFixed(0)} ml each`, s?.minutes && `${s.minutes} min a side`]
  return figures.filter(Boolean).join(', ') || s?.text
})
</script>

<template>
  <section class="panel portion" aria-label="Portion">
    <header>
      <h2>Portion</h2>
      <p class="end">{{ shape ? (sheet.served?.drawn ? 'one with what goes on, to scale' : 'one as poured, to scale') : '' }}</p>
    </header>
    <div class="draw">
      <PortionDrawing
        v-if="shape"
        :width-mm="shape.width"
        :length-mm="shape.length"
        :poured-mm="waffle ? undefined : p.poured_mm"
        :words="words"
        :size="wide ? 140 : phone ? undefined : 200"
        :colour="sheet.batter.colour?.hex"
        :drawing="p.drawing"
        :on="sheet.served?.drawn"
        :spread="p.spread"
        :iron="waffle"
        @pull="bench.spread($event)" />
      <p v-else class="well none">{{ p.reason }}</p>
      <el-button v-if="inclusions.length" class="larger" aria-label="The portion, larger" title="The portion, larger" @click="viewOpen = true"
        ><Icon name="search"
      /></el-button>
      <p v-if="sheet.batter.colour && !wide" class="tint">
        <i :style="{ background: sheet.batter.colour.hex }" />{{ sheet.batter.colour.reason
        }}<template v-if="p.drawing">; square = one bite</template>
      </p>
    </div>
    <div v-if="p.one_cake" class="count well">
      <button type="button" class="figure" @click="bench.why = { figure: 'count' }"><b>1</b>cake of all<span class="vh">. Why?</span></button>
      <el-button aria-label="Scale the batch" title="Scale the batch" @click="scaleOpen = true"><Icon name="resize" /></el-button>
    </div>
    <div v-else class="count well">
      <StepButton :label="`${p.count - 1} portions`" icon="minus" :disabled="p.count < 2" @step="toCount(-1)" />
      <button type="button" class="figure" @click="bench.why = { figure: 'count' }">
        <b>{{ wanted ?? bench.doc?.portion?.count ?? p.count }}</b>{{ bench.counted ? 'asked for' : 'portions' }}<span class="vh">. Why?</span>
      </button>
      <StepButton :label="`${p.count + 1} portions`" icon="plus" @step="toCount(1)" />
      <el-button aria-label="Scale the batch" title="Scale the batch" @click="scaleOpen = true"><Icon name="resize" /></el-button>
    </div>
    <LadlePicker class="foot" :volume-ml="p.volume_ml" />
    <SpreadRow v-if="p.spread?.text" class="foot" :spread="p.spread" />
    <PullChoices
      v-if="sheet.gauges.lift.pull?.choices && !(wide && inclusions.length)"
      class="lift"
      :pull="sheet.gauges.lift.pull"
      label="How fluffy" />
    <HeatCard />
    <p v-if="claims" class="cost claims" :title="bench.doc?.said?.text">The recipe says: {{ claims }}</p>
    <dl class="facts">
      <div class="well">
        <dd>{{ p.mass_g.toFixed(0) }} g</dd>
        <dt>in each</dt>
      </div>
      <div class="well">
        <dd>{{ p.poured_mm ? `${p.poured_mm.toFixed(1)} → ${p.cooked_mm?.toFixed(0)} mm` : `${p.volume_ml.toFixed(0)} ml` }}</dd>
        <dt>{{ p.poured_mm ? 'poured, cooked' : 'in each' }}</dt>
      </div>
      <div class="well">
        <dd>{{ plate?.fill !== undefined ? `${(100 * plate.fill).toFixed(0)} %` : (plate?.fit ?? `${p.left_over_ml.toFixed(0)} ml`) }}</dd>
        <dt>
          {{ plate?.fill !== undefined ? 'of the mould' : plate ? `at once, ${plate.rounds} ${plate.rounds === 1 ? 'load' : 'loads'}` : 'left over' }}
        </dt>
      </div>
    </dl>
    <p v-if="sheet.cost" class="cost" :title="sheet.cost.missing.length ? `No price yet: ${sheet.cost.missing.join(', ')}` : undefined">
      <b>{{ kitchen.own?.currency ?? '' }} {{ sheet.cost.portion.toFixed(2) }}</b> a portion<template v-if="sheet.cost.missing.length"
        >, {{ sheet.cost.missing.length }} without a price</template
      >
    </p>
    <ul v-if="inclusions.length" class="pieces">
      <li v-for="x in inclusions.slice(0, 2)" :key="x.line" :data-inclusion="x.ingredient">
        <i :style="{ background: x.colour }" /><b>{{ each(x.pieces_mean) }} {{ x.label.toLowerCase() }}</b
        ><span>{{ x.grams.toFixed(1) }} g · {{ (10 * x.bite_share).toFixed(0) }} in 10 bites</span>
      </li>
    </ul>
    <LoadMeter v-if="p.load && loaded" class="load" :load="p.load" :line="loaded.line" :label="loaded.label" />
    <ScaleDialog v-if="everScale" v-model="scaleOpen" />
    <PortionDialog v-if="inclusions.length && everView" v-model="viewOpen" :sheet="sheet" :shape="shape" :waffle="waffle" />
  </section>
</template>

<style scoped>
.portion {
  display: flex;
  flex-direction: column;
  overflow: hidden auto;
}
.draw {
  position: relative;
  padding: 2px var(--s3) 0;
  display: grid;
  place-items: center;
}
.draw svg {
  display: block;
  max-width: 100%;
}
.none {
  width: 100%;
  padding: var(--s5) var(--s4);
  color: var(--ink-2);
  text-align: center;
}
.tint {
  display: flex;
  align-items: center;
  gap: var(--s2);
  font-size: var(--t-mini);
  color: var(--ink-2);
}
.tint i {
  width: 14px;
  height: 14px;
  border-radius: 4px;
  border: 1px solid var(--edge);
}
.count {
  display: flex;
  align-items: center;
  gap: 6px;
  margin: 6px var(--s3) 0;
  padding: 4px 6px;
}
.larger {
  position: absolute;
  right: var(--s2);
  top: 0;
  width: var(--touch);
  padding: 0;
}
.count .el-button {
  width: var(--touch);
  padding: 0;
  flex: none;
}
.figure {
  flex: 1;
  min-height: var(--touch);
  border: 0;
  background: none;
  cursor: pointer;
  font-size: var(--t-mini);
  color: var(--ink-2);
  border-radius: var(--r-ctl);
  line-height: 1.1;
}
.figure b {
  display: block;
  font-size: var(--t-figure);
  line-height: 1;
  color: var(--ink);
  font-weight: 780;
}
.facts {
  display: grid;
  grid-template-columns: 0.7fr 1.3fr 1fr;
  gap: 6px;
  margin: 6px var(--s3) 0;
}
.facts div {
  padding: 5px 4px;
  text-align: center;
}
dt {
  font-size: var(--t-mini);
  color: var(--ink-2);
  line-height: 1.1;
}
dd {
  margin: 0;
  font-size: var(--t-body);
  font-weight: 750;
  line-height: 1.15;
  white-space: nowrap;
}
.cost {
  margin: 6px var(--s3) 0;
  font-size: 14px;
  color: var(--ink-2);
}
.claims {
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  overflow: hidden;
}
.cost b {
  color: var(--ink);
}
.pieces {
  list-style: none;
  margin: 6px var(--s3) 0;
  padding: 0;
  display: grid;
  gap: 2px;
}
.pieces li {
  display: flex;
  align-items: baseline;
  gap: 6px;
  font-size: 14px;
}
.pieces li i {
  flex: none;
  width: 10px;
  height: 10px;
  border-radius: 50%;
  border: 1px solid var(--edge);
}
.pieces span {
  margin-left: auto;
  color: var(--ink-2);
  font-size: var(--t-mini);
  white-space: nowrap;
}
.load {
  margin: 6px var(--s3) 0;
}
.lift {
  margin: 6px var(--s3) 0;
}
.foot {
  margin: 6px var(--s3) 0;
}
.portion::after {
  content: '';
  flex: none;
  height: var(--s3);
}
/* Wide: the drawing with its figures beside it, so that everything of a portion is in sight. */
@media (min-width: 1200px) {
  .portion {
    display: grid;
    grid-template-columns: 150px minmax(0, 1fr);
    grid-auto-rows: auto;
    align-content: start;
  }
  .portion > * {
    grid-column: 1 / -1;
  }
  .portion > .draw {
    grid-area: 2 / 1 / 4 / 2;
    padding-right: 0;
  }
  .portion > .facts {
    grid-area: 2 / 2 / 3 / 3;
    grid-template-columns: 1fr;
    gap: 3px;
    margin: 2px var(--s3) 0 0;
  }
  .portion > .facts div {
    display: flex;
    flex-wrap: wrap;
    justify-content: center;
    align-items: baseline;
    column-gap: 5px;
    padding: 3px 2px;
  }
  .portion > .draw:has(.larger) ~ .facts {
    margin-top: 12px;
  }
  .portion > header .end {
    display: none;
  }
  .portion > header {
    min-height: 38px;
    padding-top: var(--s2);
    align-items: center;
  }
  .portion > .count,
  .portion > .pieces,
  .portion > .load {
    margin-top: 2px;
  }
  .portion > .cost:not(.claims) {
    grid-area: 3 / 2 / 4 / 3;
    margin: 3px var(--s3) 0 0;
    font-size: var(--t-mini);
  }
  .larger {
    top: -38px;
    right: auto;
    left: 218px;
  }
}
@media (max-width: 1199px) {
  .portion {
    display: grid;
    grid-template-columns: 212px minmax(0, 1fr);
    grid-auto-rows: auto;
    align-content: start;
    overflow: visible;
  }
  .portion > header {
    grid-column: 1 / -1;
  }
  .draw {
    grid-row: 2 / 9;
    align-content: start;
    padding-bottom: var(--s3);
  }
  .tint {
    justify-self: stretch;
  }
}
@media (max-width: 700px) {
  .portion {
    display: flex;
    overflow: hidden auto;
  }
}
</style>
