<script setup lang="ts">
import AmountField from '@/parts/AmountField.vue'
import { computed, ref, watch } from 'vue'
import Icon from '@/parts/Icon.vue'
import StepButton from '@/parts/StepButton.vue'
import { onStep, unbroken } from '@/parts/figures'
import { unitsShown } from '@/parts/settings'
import FillDrawing from './FillDrawing.vue'
import { useSheet, type TaskNow } from './sheet'

/** A ladle of it on a cold plate: by the ruler or in words, and what to stir in. */
const props = defineProps<{ task: TaskNow }>()
const emit = defineEmits<{ splash: [] }>()
const sheet = useSheet()
const batch = computed(() => sheet.batch!)
const state = computed(() => batch.value.state)
const ladle = computed(() => batch.value.plan.test_ml ?? batch.value.plan.portion_ml)
const inWords = ref(false)
const byRuler = computed(() => !!props.task.ruler && !inWords.value && !!state.value.test.target_mm)
const wanted = computed(() => advice.value?.target_mm ?? state.value.test.target_mm ?? 0)
const advice = computed(() => state.value.test.advice)
const ran = ref<number>(Math.round(state.value.test.target_mm ?? 0))
const measured = ref(false) // the cook has said how wide; until then it stands where it should
watch(
  () => state.value.test.count,
  () => advice.value?.was_mm && (ran.value = advice.value.was_mm),
)
const looks = [
  { says: 'mounds', label: 'stiffer than it should', d: 'M30 44V30q0-24 30-24t30 24v14z' },
  { says: 'just_spreads', label: 'as it should', d: 'M14 44q0-20 46-20t46 20z' },
  { says: 'runs', label: 'runs more', d: 'M4 44q0-9 56-9t56 9z' },
] as const
const should = 'M14 44q0-20 46-20t46 20z' // what it should do, behind what it did
const test = () => sheet.tell({ kind: 'tested', volume_ml: ladle.value, diameter_mm: ran.value }, `the test, ${ran.value} mm`)
const say = (says: (typeof looks)[number]['says']) => sheet.tell({ kind: 'tested', says }, 'the test')
const stirIn = () => sheet.tell({ kind: 'stirred_in', grams: advice.value!.grams }, `${advice.value!.grams} g stirred in`)
const splash = computed(() => state.value.test.splash)
const oneSplash = () => splash.value && sheet.tell({ kind: 'stirred_in', grams: splash.value.grams }, `a splash, ${splash.value.grams} g`)
const good = () => sheet.tell({ kind: 'done', task: props.task.id }, 'the test done')

const mmWide = computed(() => Math.max(120, wanted.value * 1.35, ran.value * 1.1)) // of the drawing
const px = 330
const scale = computed(() => px / mmWide.value)
const marks = computed(() => Array.from({ length: Math.floor(mmWide.value / 10) + 1 }, (_, i) => i * 10))
const batter = computed(() => batch.value.plan.colour ?? 'var(--crumb)')
function set(mm: number | null | undefined) {
  if (mm === null || mm === undefined) return
  ran.value = Math.round(mm)
  measured.value = true
}
function enter() {
  if (advice.value?.grams) void stirIn()
  else if (advice.value) void good()
  else if (byRuler.value && measured.value) void test()
}
defineExpose({ enter })
</script>

<template>
  <div class="spread-card">
    <section class="ask">
      <header>
        <h2>{{ task.ruler ? 'Spread test' : 'Test it' }}</h2>
        <el-radio-group v-if="task.ruler" v-model="inWords" class="pick" aria-label="How it is told">
          <el-radio-button :value="false">ruler</el-radio-button><el-radio-button :value="true">in words</el-radio-button>
        </el-radio-group>
      </header>
      <div v-if="byRuler" class="plan">
        <svg :viewBox="`-12 -8 ${px + 24} ${px + 70}`" role="img" :aria-label="`${ladle} ml ran to ${ran} mm; it should run to ${wanted.toFixed(0)}`">
          <circle :cx="(wanted * scale) / 2" :cy="px / 2" :r="(wanted * scale) / 2" class="wanted" />
          <circle :cx="(ran * scale) / 2" :cy="px / 2" :r="(ran * scale) / 2" :fill="batter" class="ran" />
          <circle :cx="(wanted * scale) / 2" :cy="px / 2" :r="(wanted * scale) / 2" class="wanted" />
          <path :d="`M0 ${px / 2}V${px + 8}M${ran * scale} ${px / 2}V${px + 8}`" class="down" />
          <rect x="-8" :y="px + 8" :width="px + 16" height="50" rx="8" class="ruler" />
          <g v-for="m in marks" :key="m">
            <path :d="`M${m * scale} ${px + 8}v${m % 20 ? 10 : 16}`" class="mark" />
            <text v-if="m % 20 === 0" :x="m * scale" :y="px + 44" text-anchor="middle">{{ m }}</text>
          </g>
          <path :d="`M${wanted * scale} ${px + 2}v16`" class="target" />
        </svg>
        <div class="read">
          <p class="muted">{{ ladle }} ml on a flat cold plate ran to</p>
          <p class="big-figure"><AmountField :model-value="ran" label="How wide it ran, in mm" @update:model-value="set" /><small>mm</small></p>
          <p class="wants">
            wants <b>{{ wanted.toFixed(0) }}</b> {{ advice?.target_mm ? 'at this minute' : 'just mixed'
            }}<template v-if="state.test.rested_mm && !advice?.target_mm">, {{ state.test.rested_mm.toFixed(0) }} rested</template>
          </p>
          <span class="steps"
            ><StepButton label="Narrower" icon="minus" @step="set(ran - 1)" /><StepButton label="Wider" icon="plus" @step="set(ran + 1)"
          /></span>
          <el-button class="big" :class="{ go: !advice }" data-test @click="test">That wide <kbd v-if="!advice && measured">Enter</kbd></el-button>
        </div>
      </div>
      <p v-else class="text">{{ (unitsShown === 'cups' && task.in_cups) || task.text }}</p>
      <p v-if="!byRuler && task.ruler && state.test.should" class="text">Poured from the ladle, {{ state.test.should }}</p>
      <div v-if="!byRuler" class="looks" role="group" aria-label="How it leaves the ladle">
        <button v-for="l in looks" :key="l.says" type="button" :data-says="l.says" :aria-pressed="advice?.says === l.says" @click="say(l.says)">
          <svg width="120" height="48" viewBox="0 0 120 48" aria-hidden="true">
            <path :d="l.d" :fill="batter" class="ran" />
            <path :d="should" class="wanted" />
            <path d="M2 45h116" class="mark" />
          </svg>
          {{ l.label }}
        </button>
      </div>
    </section>
    <section class="answer" aria-live="polite">
      <template v-if="advice?.grams">
        <h3>Add</h3>
        <p class="grams" data-add>{{ onStep(advice.grams, 1) }}<small>g</small></p>
        <p class="of">
          <b>{{ advice.label.toLowerCase() }}</b> {{ [advice.from, unbroken(advice.measure)].filter(Boolean).join(', ') }}
        </p>
        <div class="fills">
          <FillDrawing v-for="(f, i) in advice.fills" :key="i" :fill="f" counted state="plain" colour="var(--water-fill)" :size="110" />
        </div>
        <p v-if="advice.then_mm" class="then">It should then run to about {{ advice.then_mm.toFixed(0) }} mm. A few turns only, and test again.</p>
      </template>
      <p v-else-if="advice" class="text right"><Icon v-if="advice.says !== 'runs'" name="tick" :size="30" />{{ advice.text }}</p>
      <p v-else class="muted">{{ state.kept_g ? `${state.kept_g.toFixed(0)} g wait in the jug for this.` : 'Nothing was kept back for this.' }}</p>
      <p v-if="state.splash_g" class="muted">Stirred in so far: {{ onStep(state.splash_g, 1) }} g.</p>
      <div class="acts">
        <el-button v-if="advice?.grams" class="big go" @click="stirIn">{{ onStep(advice.grams, 1) }} g is in <kbd>Enter</kbd></el-button>
        <el-button v-if="splash" class="big" data-splash :title="splash.measure" @click="oneSplash"
          >I splashed in {{ onStep(splash.grams, 1) }} g {{ splash.label.toLowerCase() }}</el-button
        >
        <el-button class="big" @click="emit('splash')">{{ splash ? 'Another amount' : 'I splashed already' }}</el-button>
        <el-button class="big" :class="{ go: advice && !advice.grams }" @click="good"
          >Good as it is <kbd v-if="advice && !advice.grams">Enter</kbd></el-button
        >
        <el-button class="big" :disabled="!sheet.last" @click="sheet.takeBack()"><Icon name="undo" :size="24" />Take back</el-button>
      </div>
    </section>
  </div>
</template>

<style scoped>
.spread-card {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(220px, 290px);
  gap: var(--s4);
  min-height: 0;
  padding: var(--s4) 20px;
  overflow-y: auto;
}
header {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: var(--s2);
  align-items: center;
}
h2 {
  font-size: 40px;
  font-weight: 800;
}
.ask,
.answer {
  display: flex;
  flex-direction: column;
  gap: var(--s3);
  min-width: 0;
}
.plan {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(150px, 210px);
  gap: var(--s4);
  align-items: center;
}
.plan svg {
  width: 100%;
  max-height: 52vh;
  background: var(--well);
  border-radius: var(--r-well);
}
.ran {
  stroke: var(--ink-2);
  stroke-width: 2;
}
.wanted {
  fill: none;
  stroke: var(--leaf);
  stroke-width: 3;
  stroke-dasharray: 9 6;
}
.down {
  fill: none;
  stroke: var(--ink-2);
  stroke-dasharray: 4 4;
}
.ruler {
  fill: var(--enamel);
  stroke: var(--ink);
  stroke-width: 2;
}
.mark {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.target {
  stroke: var(--leaf);
  stroke-width: 5;
}
svg text {
  font-size: 17px;
  fill: var(--ink);
}
.read {
  display: grid;
  gap: var(--s2);
  align-content: center;
}
.big-figure {
  display: flex;
  align-items: baseline;
  gap: 4px;
  font-size: 30px;
  font-weight: 700;
}
.big-figure .amount-field {
  width: 164px;
}
.big-figure :deep(.el-input__wrapper) {
  padding: 0 6px;
}
.big-figure :deep(.el-input__inner) {
  height: 76px;
  font-size: 68px;
  font-weight: 800;
}
.wants {
  font-size: var(--t-lead);
  color: var(--leaf);
}
.wants b {
  font-size: 26px;
}
.steps {
  display: flex;
  gap: var(--s2);
}
.steps .step {
  flex: 1;
  height: 56px;
}
.text {
  font-size: clamp(22px, 2.4vw, 30px);
  line-height: 1.25;
}
.looks {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
.looks button {
  flex: 1 1 130px;
  display: grid;
  justify-items: center;
  gap: 4px;
  padding: var(--s3);
  border: 1.5px solid var(--edge);
  border-radius: var(--r-well);
  background: var(--enamel);
  font-size: var(--t-lead);
  font-weight: 650;
  cursor: pointer;
}
.looks button[aria-pressed='true'] {
  border: 2.5px solid var(--ink);
  background: var(--yolk-wash);
}
.answer {
  border-left: 1.5px solid var(--hair);
  padding-left: var(--s4);
}
h3 {
  font-size: 24px;
}
.grams {
  font-size: clamp(90px, 10vw, 140px);
  font-weight: 800;
  line-height: 0.86;
  white-space: nowrap;
}
.grams small {
  font-size: 40px;
}
.of {
  font-size: var(--t-lead);
}
.of b {
  font-size: 24px;
}
.fills {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
}
.then {
  font-size: var(--t-lead);
}
.right {
  display: flex;
  gap: var(--s2);
}
.acts {
  display: grid;
  gap: var(--s2);
  margin-top: auto;
}
@media (max-width: 900px) {
  .spread-card {
    grid-template-columns: minmax(0, 1fr);
  }
  .plan svg {
    max-height: 36vh;
  }
  .acts {
    grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  }
  .answer {
    border: 0;
    padding: 0;
  }
}
@media (max-width: 700px) {
  .spread-card {
    padding: var(--s3);
    overflow: visible;
  }
}
@media (max-width: 560px) {
  .plan {
    grid-template-columns: minmax(0, 1fr);
  }
  .plan svg {
    display: none;
  }
}
</style>
