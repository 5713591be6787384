<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import Icon from '@/parts/Icon.vue'
import ScalePanel from '@/parts/ScalePanel.vue'
import WeightField from '@/parts/WeightField.vue'
import FigureTable from '@/parts/FigureTable.vue'
import GlassPanel from './GlassPanel.vue'
import KeepTub from './KeepTub.vue'
import MassDrawing from './MassDrawing.vue'
import { usePrep, type Wish } from './prep'

const prep = usePrep()
const route = useRoute()
onMounted(async () => {
  await prep.load()
  const { method, from } = route.query
  if (typeof method === 'string' && prep.benches.some((b) => b.method === method)) prep.pick(method, typeof from === 'string' ? from : undefined)
})

const fromName = computed(() => prep.bench?.from.find((f) => f.id === prep.wish.from)?.label ?? prep.wish.from)
const short = (name: string) =>
  name
    .replace(/\(.*?\)/g, '')
    .split(',')[0]!
    .trim()
const productName = computed(() => short(prep.result?.item.name ?? ''))
const usualCook = computed(() => prep.bench?.from.find((f) => f.id === prep.wish.from)?.usual)
const target = ref<'target_g' | 'target_brix' | 'target_ml'>('target_brix')
const targets = [
  { value: 'target_brix', label: '°Brix' },
  { value: 'target_g', label: 'g' },
  { value: 'target_ml', label: 'ml' },
] as const
function aim(v: number | undefined) {
  prep.change({ target_g: undefined, target_brix: undefined, target_ml: undefined, [target.value]: v })
}
const set = (key: keyof Wish) => (v: unknown) => prep.change({ [key]: v })
const fault = (k: string) => prep.faults[k]
const otherFaults = computed(() =>
  Object.entries(prep.faults).filter(
    ([k]) =>
      ![
        'have_g',
        'want_g',
        'after_g',
        'brix',
        'count',
        'minutes',
        'salt_g',
        'with_g',
        'leaves_g',
        'refuse_pct',
        'target_g',
        'target_brix',
        'target_ml',
      ].includes(k),
  ),
)
</script>

<template>
  <main id="work" tabindex="-1" class="in-three prep">
    <header class="area-bar">
      <h1>Prep</h1>
      <p class="muted">How much water is really in this tub?</p>
      <el-radio-group
        :model-value="prep.back ? 'want' : 'have'"
        class="pick"
        aria-label="Which way"
        @update:model-value="prep.turn($event as 'have' | 'want')">
        <el-radio-button value="have">I have</el-radio-button><el-radio-button value="want">I need</el-radio-button>
      </el-radio-group>
    </header>
    <nav class="picks methods" aria-label="Preparations">
      <button
        v-for="b in prep.benches"
        :key="b.method"
        type="button"
        :class="{ on: b.method === prep.wish.method }"
        :aria-pressed="b.method === prep.wish.method"
        @click="prep.pick(b.method)">
        {{ b.title }}
      </button>
    </nav>
    <section class="panel bench" :aria-label="prep.bench?.title" :data-method="prep.wish.method">
      <header>
        <h2>{{ prep.bench?.title ?? 'Opening the benches' }}</h2>
        <p>{{ prep.bench?.says }}</p>
      </header>
      <p v-if="prep.trouble" class="trouble" role="alert">
        <i class="sign high" />{{ prep.trouble }} <el-button @click="prep.load">Try again</el-button>
      </p>
      <div class="asks">
        <div class="what">
          <label for="prep-from">Of</label>
          <el-select
            id="prep-from"
            :model-value="prep.wish.from"
            filterable
            aria-label="What is prepared"
            @update:model-value="prep.change({ from: $event })">
            <el-option v-for="f in prep.bench?.from" :key="f.id" :value="f.id" :label="f.label" />
          </el-select>
        </div>
        <WeightField
          v-if="prep.asks.has('count') && !prep.back"
          name="count"
          label="Fruits"
          :model-value="prep.wish.count"
          :fault="fault('count')"
          @update:model-value="prep.change({ count: $event })" />
        <WeightField
          v-else-if="!prep.back"
          name="have_g"
          label="I have"
          unit="g"
          weigh
          :model-value="prep.wish.have_g"
          :fault="fault('have_g')"
          @update:model-value="prep.change({ have_g: $event })" />
        <WeightField
          v-else
          name="want_g"
          label="I need"
          unit="g"
          :model-value="prep.wish.want_g"
          :fault="fault('want_g')"
          @update:model-value="prep.change({ want_g: $event })" />
        <div v-if="prep.asks.has('cook')" class="what">
          <label for="prep-cook">Cooked</label>
          <el-select
            id="prep-cook"
            :model-value="prep.wish.cook ?? usualCook"
            aria-label="How it is cooked"
            @update:model-value="prep.change({ cook: $event })">
            <el-option v-for="c in prep.bench?.cooks" :key="c.id" :value="c.id" :label="c.label" />
          </el-select>
        </div>
        <el-checkbox
          v-if="prep.asks.has('as_bought')"
          :model-value="!!prep.wish.as_bought"
          class="tick"
          @update:model-value="set('as_bought')($event || undefined)"
          >with peel and stones</el-checkbox
        >
        <WeightField
          v-if="prep.asks.has('refuse_pct')"
          name="refuse_pct"
          label="Peel and core"
          unit="%"
          hint="usual"
          :model-value="prep.wish.refuse_pct"
          :fault="fault('refuse_pct')"
          @update:model-value="set('refuse_pct')($event)" />
        <div v-if="prep.asks.has('ripeness')" class="what">
          <label>Skin</label>
          <el-radio-group
            :model-value="prep.wish.ripeness"
            class="pick"
            aria-label="Ripeness by the skin"
            @update:model-value="set('ripeness')($event)">
            <el-radio-button v-for="r in prep.bench?.ripenesses" :key="r.id" :value="r.id">{{ r.label }}</el-radio-button>
          </el-radio-group>
        </div>
        <template v-if="prep.asks.has('salt')">
          <el-checkbox
            :model-value="!!prep.wish.salt"
            class="tick"
            @update:model-value="prep.change({ salt: ($event as boolean) || undefined, salt_g: undefined })"
            >salted</el-checkbox
          >
          <WeightField
            v-if="prep.wish.salt"
            name="salt_g"
            label="Salt"
            unit="g"
            hint="usual"
            :step="0.1"
            :model-value="prep.wish.salt_g"
            :fault="fault('salt_g')"
            @update:model-value="set('salt_g')($event)" />
        </template>
        <template v-if="prep.asks.has('target_g')">
          <WeightField
            name="target"
            label="Down to"
            :hint="prep.bench?.target_hint"
            :model-value="prep.wish[target]"
            :fault="fault(target) ?? fault('target_g')"
            @update:model-value="aim($event)" />
          <el-radio-group v-model="target" class="pick" aria-label="Target by" @change="aim(undefined)">
            <el-radio-button v-for="t in targets" :key="t.value" :value="t.value">{{ t.label }}</el-radio-button>
          </el-radio-group>
        </template>
        <div v-if="prep.asks.has('with')" class="what">
          <label for="prep-with">{{ prep.wish.method === 'toss' ? 'In' : 'Liquid' }}</label>
          <el-select
            id="prep-with"
            :model-value="prep.wish.with ?? ''"
            filterable
            clearable
            :placeholder="prep.bench?.with_hint"
            aria-label="What it is put in"
            @update:model-value="set('with')($event || undefined)">
            <el-option v-for="w in prep.bench?.with" :key="w.id" :value="w.id" :label="w.label" />
          </el-select>
        </div>
        <WeightField
          v-if="prep.asks.has('with_g')"
          name="with_g"
          :label="prep.wish.method === 'toss' ? 'Flour that sticks' : 'How much'"
          unit="g"
          hint="usual"
          :model-value="prep.wish.with_g"
          :fault="fault('with_g')"
          @update:model-value="set('with_g')($event)" />
        <WeightField
          v-if="prep.asks.has('leaves_g')"
          name="leaves_g"
          label="Leaves or spice"
          unit="g"
          hint="usual"
          :model-value="prep.wish.leaves_g"
          :fault="fault('leaves_g')"
          @update:model-value="set('leaves_g')($event)" />
        <WeightField
          v-if="prep.asks.has('minutes')"
          name="minutes"
          label="For"
          unit="min"
          hint="usual"
          :model-value="prep.wish.minutes"
          :fault="fault('minutes')"
          @update:model-value="set('minutes')($event)" />
        <el-checkbox
          v-if="prep.asks.has('pressed')"
          :model-value="!!prep.wish.pressed"
          class="tick"
          @update:model-value="set('pressed')($event || undefined)"
          >pressed out</el-checkbox
        >
        <el-checkbox
          v-if="prep.asks.has('top_up')"
          :model-value="!!prep.wish.top_up"
          class="tick"
          @update:model-value="set('top_up')($event || undefined)"
          >topped up</el-checkbox
        >
      </div>
      <p v-for="[k, text] in otherFaults" :key="k" class="trouble" role="alert"><i class="sign high" />{{ text }}</p>
      <div v-if="prep.result" class="picture" :class="{ stale: Object.keys(prep.faults).length }">
        <MassDrawing :result="prep.result" :from="short(fromName)" :product="productName" />
      </div>
      <div v-if="prep.result" class="afterwards">
        <WeightField
          v-if="prep.asks.has('after_g') && !prep.back"
          name="after_g"
          label="Weighed afterwards"
          unit="g"
          weigh
          :hint="`usually ${prep.result.usual_g.toFixed(0)}`"
          :model-value="prep.wish.after_g"
          :fault="fault('after_g')"
          @update:model-value="prep.change({ after_g: $event })" />
        <WeightField
          v-if="prep.asks.has('brix')"
          name="brix"
          label="Reads, at 20 °C"
          unit="°Brix"
          :hint="prep.result.brix ? `about ${prep.result.brix.toFixed(1)}` : ''"
          :step="0.1"
          :model-value="prep.wish.brix"
          :fault="fault('brix')"
          @update:model-value="prep.change({ brix: $event })" />
        <FigureTable class="figures" :figures="prep.result.shows" :own="productName" :table="prep.result.stand_in?.name" />
      </div>
      <ol v-if="prep.result" class="steps">
        <li v-for="s in prep.result.steps" :key="s">{{ s }}</li>
      </ol>
      <p v-for="c in prep.bench?.cautions" :key="c" class="care"><Icon name="caution" :size="16" />{{ c }}</p>
    </section>
    <aside class="beside-work">
      <KeepTub v-if="prep.result && !Object.keys(prep.faults).length" :result="prep.result" />
      <ScalePanel />
      <GlassPanel v-if="prep.asks.has('brix')" @read="prep.change({ brix: $event })" />
    </aside>
  </main>
</template>

<style scoped>
.methods button {
  font-size: var(--t-body);
  font-weight: 600;
}
.bench {
  overflow: auto;
  padding-bottom: var(--s3);
}
.asks {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: var(--s2) var(--s3);
  padding: var(--s2) var(--s4) 0;
}
.asks > :deep(.field) {
  flex: 0 1 138px;
}
.what {
  flex: 0 1 146px;
  min-width: 0;
}
.what:first-child {
  flex-basis: 196px;
}
.what label {
  display: block;
  color: var(--ink-2);
  font-size: var(--t-mini);
  padding-bottom: 2px;
}
.tick {
  min-height: var(--touch);
  margin-right: 0;
}
.picture {
  padding: var(--s2) var(--s4) 0;
  overflow-x: auto;
}
.picture.stale {
  opacity: 0.45;
}
.afterwards {
  display: flex;
  flex-wrap: wrap;
  align-items: start;
  gap: var(--s3);
  margin: 0 var(--s4);
  padding-top: var(--s2);
  border-top: 1.5px solid var(--hair);
}
.afterwards > :deep(.field) {
  flex: 0 1 184px;
}
.figures {
  flex: 1 1 236px;
  width: auto;
}
.steps {
  margin: var(--s3) var(--s4) 0;
  padding: var(--s2) var(--s3) var(--s2) var(--s6);
  background: var(--well);
  border-radius: var(--r-well);
  display: grid;
  gap: 4px;
}
.care {
  display: flex;
  gap: var(--s2);
  align-items: center;
  padding: var(--s2) var(--s4) 0;
  font-size: var(--t-mini);
  color: var(--ink-2);
}
.trouble {
  display: flex;
  gap: var(--s2);
  align-items: center;
  padding: var(--s2) var(--s4) 0;
  color: var(--beet);
}
@media (max-width: 1100px) {
  .bench {
    overflow: visible;
  }
}
</style>
