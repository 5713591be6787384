<script setup lang="ts">
import { computed, onMounted, onUnmounted, ref } from 'vue'
import { later } from '@/parts/later'
import { useEventListener } from '@vueuse/core'
import type { Worksheet } from '@/api/client'
import { useBench } from '@/bench/bench'
import { useKitchen } from '@/kitchen/kitchen'
import Icon from '@/parts/Icon.vue'
import StepButton from '@/parts/StepButton.vue'
import ColourTrack from './ColourTrack.vue'
import DialFace from './DialFace.vue'
import FatRow from './FatRow.vue'
import HeatSteps from './HeatSteps.vue'
import HeatTrack from './HeatTrack.vue'
import IronLight from './IronLight.vue'
import OwnRow from './OwnRow.vue'
import SideCard from './SideCard.vue'
import WaysRow from './WaysRow.vue'
import { froms, useHeat } from './heat'

const HeatCurves = later(() => import('./HeatCurves.vue'))

defineProps<{ sheet: Worksheet }>()
const bench = useBench()
const heat = useHeat()
const kitchen = useKitchen()
const cook = computed(() => heat.cook)
const wish = computed(() => bench.doc?.cook)
const asked = ref(false) // the row is open, with nothing in it yet
const steps = computed({ get: () => asked.value || !!wish.value?.heat?.length, set: (on) => (asked.value = on) })
const stands = computed(() => bench.doc?.cook?.heat?.find((h) => h.at === 'pour')?.c ?? bench.doc?.kitchen?.griddle_c ?? cook.value?.griddle_c ?? 0)
const iron = computed(() => bench.doc?.form === 'waffle')
const plates = computed(() => (iron.value ? kitchen.own?.irons : kitchen.own?.griddles) ?? [])
const fahrenheitFirst = computed(() => !!cook.value?.griddle_text.endsWith('°F'))
const trouble = computed(() => bench.trouble ?? heat.trouble)
async function again() {
  await bench.work()
  await heat.ask()
}
const maths = ref(false)
function toggleMaths() {
  maths.value = !maths.value
  heat.curves = maths.value
}
/** The step of the hand is the program's, and so is what the plate can be turned to. */
const step = computed(() => kitchen.form?.limits.min_c?.step ?? 1)
function turn(by: number) {
  const [low, high] = cook.value?.track_c ?? []
  if (low !== undefined && high !== undefined) heat.setPlate(Math.min(high, Math.max(low, Math.round(stands.value) + by)))
}

const back = ref<{ $el: HTMLElement }>()
onMounted(() => back.value?.$el.focus())
onUnmounted(() => (heat.curves = false))
useEventListener(window, 'keydown', (e: KeyboardEvent) => {
  if (e.key === 'Escape' && !document.querySelector('.el-overlay:not([style*="display: none"]), .el-select__popper[aria-hidden="false"]'))
    heat.open = false
})
</script>

<template>
  <section class="panel heat" aria-label="Heat">
    <header>
      <h2>Heat</h2>
      <el-select
        v-if="plates.length"
        class="plate"
        :model-value="cook?.plate_id"
        :aria-label="iron ? 'Iron' : 'Plate or pan'"
        @update:model-value="heat.wish({ on: $event })">
        <el-option v-for="p in plates" :key="p.id" :value="p.id" :label="p.name" />
      </el-select>
      <router-link v-else to="/kitchen">Tell the Kitchen your {{ iron ? 'iron' : 'plate' }}</router-link>
      <el-select
        v-if="cook"
        class="from"
        :model-value="cook.from"
        aria-label="Where the batter comes from"
        @update:model-value="heat.wish({ from: $event })">
        <el-option
          v-for="f in cook.choices.froms"
          :key="f"
          :value="f"
          :label="`${froms[f]}, ${f === cook.from ? `${cook.start_c.toFixed(0)} °C` : ''}`.replace(/, $/, '')" />
      </el-select>
      <span v-if="cook" class="chip rim">switch on {{ cook.preheat_min.toFixed(0) }} min before</span>
      <span v-if="heat.coming" class="chip" role="status">coming</span>
      <el-button ref="back" class="back" @click="heat.open = false">Back to the list <kbd>Esc</kbd></el-button>
    </header>
    <p v-if="trouble" class="say" role="alert"><i class="sign high" />{{ trouble }} <el-button @click="again">Try again</el-button></p>
    <p v-if="!cook" class="say">Working out the heat</p>
    <div v-else class="in" :class="{ coming: heat.coming }">
      <div class="three" :class="{ two: cook.second_side_s === undefined }">
        <section class="well dialcard" aria-label="How hot">
          <template v-if="cook.dial_face">
            <DialFace :face="cook.dial_face" :said="cook.dial ?? ''" />
            <p class="said">{{ cook.dial }}</p>
          </template>
          <p v-else-if="cook.dial" class="said">{{ cook.dial }}</p>
          <p v-else-if="!iron" class="nodial muted">
            No dial told yet. <router-link to="/kitchen">Say what stands on its knob</router-link>, and the heat is told in its words.
          </p>
          <div class="degrees">
            <StepButton :label="`${step} °C less`" icon="minus" @step="turn(-step)" />
            <p v-if="fahrenheitFirst">
              <b>{{ cook.griddle_f.toFixed(0) }}</b> °F<small>{{ stands.toFixed(0) }} °C</small>
            </p>
            <p v-else>
              <b>{{ stands.toFixed(0) }}</b> °C<small>{{ cook.griddle_f.toFixed(0) }} °F</small>
            </p>
            <StepButton :label="`${step} °C more`" icon="plus" @step="turn(step)" />
          </div>
          <HeatTrack
            :value="stands"
            :low="cook.track_c[0]!"
            :high="cook.track_c[1]!"
            :window="cook.window_c"
            :window-text="cook.window_text"
            @change="heat.setPlate" />
          <p v-if="cook.signs_hot" class="hot">Hot enough: {{ cook.signs_hot.join('; ') }}.</p>
          <IronLight v-if="iron" :cook="cook" />
        </section>
        <template v-if="cook.first_side_s">
          <SideCard
            :title="iron ? 'Closed' : 'First side'"
            :note="iron ? undefined : 'do not press'"
            :seconds="cook.first_side_s"
            :range="cook.range_s"
            :signs="cook.signs_first"
            :shown="cook.shown_first"
            :colour="sheet.batter.colour?.hex"
            :said="bench.doc?.said?.minutes" />
          <SideCard
            v-if="cook.second_side_s !== undefined"
            title="Second side"
            note="flip once"
            :seconds="cook.second_side_s"
            :range="cook.second_range_s"
            :signs="cook.signs_second"
            :shown="cook.shown_second"
            :colour="sheet.batter.colour?.hex"
            :said="bench.doc?.said?.minutes" />
        </template>
        <p v-else class="well raw">{{ cook.warnings[0] }}</p>
      </div>
      <WaysRow v-model:steps="steps" :cook="cook" :iron="iron" :hot="!!wish?.hot_start" />
      <HeatSteps v-if="steps" :cook="cook" :iron="iron" :chosen="wish" />
      <OwnRow v-if="cook.own && cook.own.state !== 'offered'" :cook="cook" />
      <ColourTrack
        v-if="cook.shade_first !== undefined"
        :cook="cook"
        :wished="wish?.colour ?? 'golden'"
        :batter="sheet.batter.colour?.hex"
        @wish="heat.wish({ colour: $event === 'golden' ? undefined : ($event as 'pale' | 'deep') })" />
      <FatRow :cook="cook" :chosen="wish" />
      <button v-if="cook.shade_first !== undefined" type="button" class="maths" :aria-expanded="maths" @click="toggleMaths">
        <Icon name="down" :class="{ up: maths }" /><b>The maths</b><span>bottom, middle and top · how far it has set · colour · steam</span>
      </button>
      <HeatCurves v-if="maths" :cook="cook" />
    </div>
  </section>
</template>

<style scoped>
.heat {
  display: flex;
  flex-direction: column;
  overflow: hidden auto;
}
.heat > header {
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2);
  padding: var(--s2) var(--s3) 0 var(--s4);
}
.heat > header h2 {
  font-size: var(--t-title);
}
.plate {
  width: 152px;
}
.from {
  width: 152px;
}
.el-checkbox {
  min-height: var(--touch);
  margin: 0;
}
.back {
  margin-left: auto;
}
.in {
  display: flex;
  flex-direction: column;
  gap: 10px;
  padding: var(--s2) var(--s4) var(--s3);
}
.coming .degrees b,
.coming :deep(.minutes b) {
  opacity: 0.45;
}
.three {
  display: grid;
  grid-template-columns: minmax(0, 268fr) minmax(0, 284fr) minmax(0, 284fr);
  gap: 10px;
}
.two {
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
}
.dialcard {
  display: flex;
  flex-direction: column;
  gap: var(--s2);
  padding: 10px var(--s3);
  justify-content: space-between;
}
.said {
  text-align: center;
  font-size: var(--t-title);
  font-weight: 750;
  line-height: 1.1;
}
.hot {
  font-size: 14px;
  line-height: 1.25;
  color: var(--ink-2);
}
.nodial {
  padding: var(--s3) 0;
}
.degrees {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: var(--s2);
}
.degrees .el-button {
  width: var(--touch);
  padding: 0;
  flex: none;
  margin: 0;
}
.degrees p {
  text-align: center;
  line-height: 1;
  white-space: nowrap;
}
.degrees b {
  font-size: 48px;
  font-weight: 800;
}
.degrees small {
  display: block;
  color: var(--ink-2);
  font-size: var(--t-mini);
}
.raw {
  padding: var(--s5);
  grid-column: span 2;
  font-size: var(--t-lead);
}
.say {
  display: flex;
  gap: var(--s2);
  align-items: center;
  padding: var(--s4);
  color: var(--ink-2);
}
.maths {
  display: flex;
  align-items: center;
  gap: var(--s3);
  min-height: var(--touch);
  padding: 0 var(--s3);
  border: 1.5px dashed var(--edge);
  border-radius: var(--r-ctl);
  background: none;
  cursor: pointer;
  text-align: left;
}
.maths span {
  color: var(--ink-2);
}
.up {
  transform: rotate(180deg);
}
@media (max-width: 1100px) {
  .three {
    grid-template-columns: 1fr 1fr;
  }
  .three:not(.two) .dialcard {
    grid-column: 1 / -1;
    display: grid;
    grid-template-columns: 1fr 1fr;
    align-items: center;
  }
  .three:not(.two) .dial {
    grid-row: 1 / 4;
  }
}
@media (max-width: 900px) {
  .heat {
    overflow: visible;
  }
}
@media (max-width: 560px) {
  .three,
  .two {
    grid-template-columns: 1fr;
  }
  .heat > header .plate,
  .heat > header .from {
    width: 100%;
  }
  .heat > header h2 {
    order: -2;
  }
  .back {
    order: -1;
  }
  .three > .dialcard {
    order: 2;
  }
  .three:not(.two) .dialcard {
    grid-template-columns: 1fr;
  }
  .maths span {
    display: none;
  }
}
</style>
