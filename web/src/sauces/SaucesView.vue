<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { deliver, waits } from '@/away/outbox'
import { api, got, said, type Schemas } from '@/api/client'
import AllergenLine from '@/parts/AllergenLine.vue'
import ExportMenu from '@/parts/ExportMenu.vue'
import { onStep } from '@/parts/figures'
import Icon from '@/parts/Icon.vue'
import { say } from '@/parts/say'
import StepButton from '@/parts/StepButton.vue'
import { sayPutAside } from '@/parts/undo'
import { useCounter } from '@/parts/useCounter'
import { useScale } from '@/parts/useScale'
import BoilingCurve from './BoilingCurve.vue'
import DevicesDialog from './DevicesDialog.vue'
import GoesOn from './GoesOn.vue'
import NewPotDialog from './NewPotDialog.vue'
import PotClock from './PotClock.vue'
import PotDrawing from './PotDrawing.vue'
import SauceEditor from './SauceEditor.vue'
import StopCards from './StopCards.vue'
import { plainSauce, useSauces, type Sauce } from './sauces'
import { useStove } from './useStove'
import { kindLabel, whenLabel } from './words'

/** What goes on top: a pot that is led to its stop, what it makes, what it goes on. */
const sauces = useSauces()
const route = useRoute()
const router = useRouter()
const counter = useCounter()
const { scale } = useScale()
const stove = useStove(
  computed(() => sauces.id),
  () => {
    counter.sound('rested')
    say('The pot rings.')
  },
)
onMounted(async () => {
  await sauces.load()
  await look()
})
async function look() {
  const asked = route.query.sauce
  if (typeof asked === 'string' && sauces.list?.some((s) => s.id === asked)) {
    if (asked !== sauces.id || !sauces.doc) await sauces.open(asked)
  } else if (!sauces.doc && sauces.list?.length) await go(sauces.list[0]!.id, true)
  else if (sauces.id) await go(sauces.id, true)
}
watch(() => route.query.sauce, look)
async function go(id: string, instead = false) {
  await sauces.open(id)
  const to = { path: '/sauces', query: { sauce: id } }
  await (instead ? router.replace(to) : router.push(to))
}

const pot = computed(() => sauces.pot)
const now = computed(() => pot.value?.now)
const need = computed(() => sauces.doc?.target?.servings !== undefined)
/** What is asked for shows at once; what it takes follows. */
const servings = computed(() => sauces.doc?.target?.servings ?? pot.value?.servings ?? 0)
function count(by: number) {
  if (pot.value) aim({ servings: Math.max(1, servings.value + by), serving_g: pot.value.serving_g })
}
function aim(patch: NonNullable<Sauce['target']>) {
  const target = Object.fromEntries(Object.entries({ ...sauces.doc?.target, ...patch }).filter(([, v]) => v !== undefined))
  if (target.servings) delete target.mass_g // one of them says how much
  sauces.change({ target: Object.keys(target).length ? target : undefined })
}
function turn(to: string) {
  if (to === 'need') count(0)
  else aim({ servings: undefined })
}

/** The figure that is watched, and what is said of it. */
const lead = computed(() => {
  const p = pot.value
  if (!p) return undefined
  const n = now.value
  if (n && p.kind === 'caramel' && n.by === 'temperature') return { figure: figureOf(n.boils_c), unit: '°C', head: 'the sugar', says: n.says }
  if (n) return { figure: Math.abs(n.to_go_g).toFixed(0), unit: 'g', head: n.to_go_g < -0.5 ? 'too much is gone' : 'still to boil off', says: n.says }
  if (p.kind === 'caramel') {
    const amber = p.stops.find((s) => s.by === 'temperature')
    return { figure: figureOf(amber?.at), unit: '°C', head: 'to amber, then off the heat', says: 'then pour in what waits, slowly and warm' }
  }
  if (p.pot.boils)
    return {
      figure: p.pot.off_g.toFixed(0),
      unit: 'g',
      head: `to boil off, about ${Math.ceil(p.pot.minutes)} min`,
      says: `${p.pot.rate_g_per_min.toFixed(0)} g a minute, stirring`,
    }
  if (p.kind === 'cream')
    return { figure: p.end.volume_ml.toFixed(0), unit: 'ml', head: `whipped, out of ${p.start.volume_ml.toFixed(0)} ml`, says: p.texture }
  if (p.kind === 'macerated') return { figure: (p.juice_g ?? 0).toFixed(0), unit: 'g', head: 'of juice are drawn', says: 'the sugar in it' }
  return { figure: p.end.mass_g.toFixed(0), unit: 'g', head: 'stirred together', says: p.texture }
})
const figureOf = (v: number | undefined) => (v === undefined ? '' : v.toFixed(0))

/** What the scale shows right now, where there is one. */
const weighs = computed(() => (scale.value?.link === 'live' && !scale.value.over ? scale.value.grams : undefined))
const busy = ref(false)
async function weigh() {
  const s = scale.value
  if (s?.link !== 'live' || s.grams === undefined || s.over) return say('The scale shows no weight. Open the devices, or read another stop.')
  if (!s.steady) return say('Wait until the scale is steady, then weigh again.')
  if (s.grams <= 0) return say('There is nothing on the scale: put the pot on it.')
  await sauces.shows({ scale_g: s.grams })
}
async function read(by: Schemas['SauceStop']['by']) {
  busy.value = true
  try {
    if (by === 'weight') await weigh()
    else if (by === 'refractometer') await sauces.shows({ brix: Number((await got(api.POST('/devices/refractometer/readings'))).brix.toFixed(1)) })
    else {
      const heats = await got(api.GET('/devices/thermometer'))
      if (heats.probe_c === undefined) say(heats.says || 'The probe shows nothing: weigh the pot, or go by eye.')
      else await sauces.shows({ temperature_c: heats.probe_c })
    }
  } catch (e) {
    say(said(e))
  } finally {
    busy.value = false
  }
}
/** The surest is read by the big button, the others at their own. */
const surest = computed(() => pot.value?.stops[0]?.by)
const canRead = computed(() =>
  pot.value?.pot.boils ? { weight: surest.value !== 'weight', refractometer: true, temperature: surest.value !== 'temperature' } : {},
)

const editing = ref(false)
const fresh = ref<Sauce>()
const newPot = ref(false)
const devices = ref(false)
const maths = ref(false)
const editor = ref<'old' | 'new'>('old')
function edit() {
  editor.value = 'old'
  fresh.value = undefined
  editing.value = true
}
function blank() {
  newPot.value = false
  editor.value = 'new'
  fresh.value = undefined
  editing.value = true
}
async function take(example: Sauce) {
  newPot.value = false
  try {
    const there = sauces.list?.filter((s) => s.document.name.startsWith(example.name)).length ?? 0
    await add({ ...plainSauce(example), name: there ? `${example.name} ${there + 1}` : example.name })
  } catch (e) {
    say(said(e))
  }
}
async function add(s: Sauce) {
  if (!(await sauces.add(s))) say(waits(`“${s.name}”`))
  else await router.push({ path: '/sauces', query: { sauce: sauces.id } })
}
async function keep(s: Sauce): Promise<Record<string, string> | undefined> {
  if (editor.value === 'old') return sauces.keep(s)
  try {
    await got(api.POST('/sauce', { body: { sauce: s } }))
  } catch (e) {
    return (e as { fields?: Record<string, string> }).fields ?? { '': said(e) }
  }
  await add(s)
  return undefined
}
async function aside() {
  const name = sauces.doc?.name ?? ''
  try {
    const back = await sauces.remove()
    if (back) sayPutAside(`${name} is put aside.`, back)
    const first = sauces.list?.[0]
    if (first) await go(first.id, true)
  } catch (e) {
    say(said(e))
  }
}
/** The tub that is kept, once: another click would make a second one. */
const kept = shallowRef<Schemas['PantryItem']>()
async function tub() {
  const item = pot.value?.tub
  if (!item) return
  busy.value = true
  try {
    const { landed } = await deliver({
      what: `“${item.name}” in the pantry`,
      method: 'POST',
      path: '/pantry',
      body: { ...item, format: 'upbeat-ladle/pantry-item', version: 1 },
    })
    kept.value = item
    say(landed ? `A tub of ${item.name}, ${item.stock_g?.toFixed(0)} g, is in the pantry.` : waits(`“${item.name}”`))
    await sauces.loadUses()
  } catch (e) {
    say(said(e))
  } finally {
    busy.value = false
  }
}
const general = computed(() => sauces.trouble ?? sauces.faults.now ?? Object.values(sauces.faults)[0])
const words = computed(() => {
  const p = pot.value?.pot
  if (!p) return ''
  const at = now.value ? `, now ${now.value.level_mm.toFixed(0)} mm` : ''
  return p.boils
    ? `The pot to scale: ${p.start_mm.toFixed(0)} mm deep at the start${at}, stop at ${p.stop_mm.toFixed(0)} mm`
    : `The bowl to scale: ${p.start_mm.toFixed(0)} mm deep`
})
</script>

<template>
  <main id="work" tabindex="-1" class="in-three sauces">
    <header class="area-bar">
      <h1>Sauces</h1>
      <p class="muted">What goes on top?</p>
      <el-button data-devices title="The devices beside the stove" @click="devices = true"
        ><Icon name="scale" :size="18" />{{ weighs === undefined ? 'Devices' : `Scale ${weighs.toFixed(0)} g` }}</el-button
      >
      <el-radio-group
        v-if="pot"
        :model-value="need ? 'need' : 'have'"
        class="pick"
        aria-label="Which way"
        @update:model-value="turn($event as string)">
        <el-radio-button value="have">I have</el-radio-button><el-radio-button value="need">I need</el-radio-button>
      </el-radio-group>
    </header>
    <nav class="picks" aria-label="Sauces">
      <p v-if="!sauces.list && !sauces.trouble" class="muted">Looking for sauces</p>
      <button
        v-for="s in sauces.list"
        :key="s.id"
        type="button"
        :class="{ on: s.id === sauces.id }"
        :aria-pressed="s.id === sauces.id"
        :data-sauce="s.document.name"
        @click="go(s.id)">
        <b>{{ s.document.name }}</b><small>{{ s.trouble ? 'needs mending' : `${s.servings} servings of ${onStep(s.serving_g, 1)} g` }}</small>
      </button>
      <el-button class="new" data-new-pot @click="newPot = true"><Icon name="plus" />New pot</el-button>
    </nav>
    <section v-if="!sauces.doc" class="panel work none" aria-label="The pot">
      <p v-if="sauces.trouble" class="trouble" role="alert">
        <i class="sign high" />{{ sauces.trouble }} <el-button @click="sauces.load">Try again</el-button>
      </p>
      <template v-else-if="sauces.list">
        <p><b>No sauce is kept yet.</b></p>
        <p class="muted">Begin with a worked example, or with an own pot: what goes in, when to stop, how many servings it makes.</p>
        <el-button class="go" @click="newPot = true"><Icon name="plus" />New pot</el-button>
      </template>
    </section>
    <section v-else class="panel work" :aria-label="sauces.doc.name" :data-pot="sauces.doc.name">
      <header>
        <h2>{{ sauces.doc.name }}</h2>
        <p>{{ pot ? `${kindLabel(pot.kind)}, ${whenLabel[pot.when]}, ${pot.served}` : '' }}</p>
        <span class="end acts">
          <ExportMenu v-if="sauces.id" kind="sauces" :id="sauces.id" :name="sauces.doc.name" />
          <el-button class="ghost square" :aria-label="`Put ${sauces.doc.name} aside`" title="Put aside" @click="aside"
            ><Icon name="bin"
          /></el-button>
        </span>
      </header>
      <div class="lines" data-lines>
        <button v-for="(l, i) in pot?.lines" :key="i" type="button" class="line" @click="edit">
          {{ l.label }} <b>{{ onStep(l.grams, l.grams < 10 ? 1 : 0) }} g</b>
        </button>
        <el-button data-edit @click="edit"><Icon name="list" :size="18" />Change</el-button>
      </div>
      <p v-if="general" class="trouble" role="alert"><i class="sign high" />{{ general }}</p>
      <template v-if="pot && lead">
        <div class="lead" :class="{ done: now?.done }" data-lead aria-live="polite">
          <p class="figure">
            <b>{{ lead.figure }}</b><small>{{ lead.unit }}</small>
          </p>
          <p class="says">
            <b>{{ lead.head }}</b><span>{{ lead.says }}</span>
          </p>
          <div v-if="pot.pot.boils" class="do">
            <el-button v-if="surest === 'temperature'" class="go" data-probe :loading="busy" @click="read('temperature')"
              ><Icon name="probe" />Read the probe</el-button
            >
            <el-button v-else class="go" data-weigh :loading="busy" @click="weigh"><Icon name="scale" />Weigh the pot</el-button>
            <el-button v-if="sauces.reading" class="ghost" @click="(sauces.read(undefined), sauces.work())">Forget the reading</el-button>
          </div>
        </div>
        <div class="stove">
          <PotDrawing :pot="pot.pot" :now="now?.level_mm" :colour="pot.colour" :words="words" :whipped="pot.kind === 'cream'" />
          <PotClock
            v-if="pot.pot.boils"
            :boils="stove.boils.value"
            :over="stove.over.value"
            :boiled-ms="stove.boiled.value"
            :whole-ms="pot.pot.minutes * 60000"
            :rings-in-ms="stove.ringsIn.value"
            @start="stove.start"
            @stop="stove.stop"
            @clear="(stove.clear(), sauces.read(undefined), sauces.work())"
            @ring="stove.ringIn" />
        </div>
        <StopCards :stops="pot.stops" :colour="pot.colour" :can-read="canRead" @read="read" />
        <ol class="well steps">
          <li v-for="s in [...pot.steps, ...(pot.serve ? [pot.serve] : [])]" :key="s">{{ s }}</li>
        </ol>
        <p v-if="sauces.doc.note" class="note muted">{{ sauces.doc.note }}</p>
        <el-button v-if="pot.pot.boils" class="ghost" :aria-expanded="maths" data-maths @click="maths = !maths"
          ><Icon name="why" :size="18" />{{ maths ? 'Less' : 'The maths' }}</el-button
        >
        <BoilingCurve v-if="maths && pot.pot.boils" :pot="pot" />
      </template>
      <p v-else-if="!general" class="muted">Working it out</p>
    </section>
    <aside v-if="sauces.doc && pot" class="beside-work">
      <section class="panel makes" aria-label="Makes">
        <header><h2>Makes</h2></header>
        <div class="count">
          <StepButton icon="minus" :label="`${servings - 1} servings`" :disabled="servings < 2" @step="count(-1)" />
          <p>
            <b data-servings>{{ servings }}</b>servings of {{ onStep(pot.serving_g, 1) }} g
          </p>
          <StepButton icon="plus" :label="`${servings + 1} servings`" @step="count(1)" />
        </div>
        <dl>
          <div>
            <dt>sugar a serving</dt>
            <dd>{{ pot.sugars_g_per_serving.toFixed(1) }} g</dd>
          </div>
          <div>
            <dt>tastes like white sugar</dt>
            <dd>{{ pot.sweet_as_sugar_g_per_serving.toFixed(1) }} g</dd>
          </div>
          <div v-if="pot.pot.boils && pot.end.brix !== undefined">
            <dt>°Brix at the end</dt>
            <dd>{{ pot.end.brix.toFixed(0) }}</dd>
          </div>
          <div>
            <dt>in the end</dt>
            <dd>{{ pot.end.mass_g.toFixed(0) }} g, {{ pot.end.volume_ml.toFixed(0) }} ml</dd>
          </div>
          <div>
            <dt>it is</dt>
            <dd class="long">{{ pot.texture }}</dd>
          </div>
          <div>
            <dt>keeps in the fridge</dt>
            <dd>{{ pot.keep_days }} {{ pot.keep_days === 1 ? 'day' : 'days' }}</dd>
          </div>
        </dl>
        <AllergenLine class="allergens" :text="pot.allergen_text" />
        <el-button data-tub :disabled="kept === pot.tub || busy" @click="tub"
          ><Icon name="tub" :size="18" />{{ kept === pot.tub ? 'The tub is kept' : 'It is made: keep the tub' }}</el-button
        >
      </section>
      <section class="panel mind" aria-label="Mind">
        <header><h2>Mind</h2></header>
        <ul>
          <li v-for="c in pot.cautions" :key="c"><Icon name="caution" :size="20" />{{ c }}</li>
        </ul>
      </section>
      <GoesOn
        v-if="sauces.id"
        :id="sauces.id"
        :revision="sauces.revision"
        :sauce="sauces.doc"
        :colour="pot.colour"
        :each="pot.serving_g"
        :uses="sauces.uses"
        @changed="sauces.loadUses" />
    </aside>
    <SauceEditor v-model="editing" :from="editor === 'old' ? sauces.doc : fresh" :keep="keep" />
    <NewPotDialog v-model="newPot" @take="take" @blank="blank" />
    <DevicesDialog v-model="devices" />
  </main>
</template>

<style scoped>
.picks button:not(.new) {
  display: grid;
  align-content: center;
  gap: 2px;
  min-height: 54px;
  padding: 6px var(--s3);
  overflow-wrap: anywhere;
}
.new {
  margin-top: var(--s2);
}
.work {
  display: flex;
  flex-direction: column;
  gap: var(--s3);
  overflow: auto;
  padding: 0 var(--s4) var(--s4);
}
.work > * {
  flex: none;
}
.work > header {
  padding-left: 0;
  padding-right: 0;
  align-items: center;
}
.work > header h2 {
  font-size: var(--t-figure);
  min-width: 0;
  overflow-wrap: anywhere;
}
.square {
  width: var(--touch);
  padding: 0;
}
.none {
  justify-content: center;
  align-items: center;
  text-align: center;
}
.lines {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
.line {
  min-height: var(--touch);
  padding: 0 var(--s3);
  border: 1.5px solid var(--edge);
  border-radius: var(--r-ctl);
  background: var(--enamel);
  cursor: pointer;
}
.lead {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2) var(--s4);
  padding: var(--s2) var(--s4);
  background: var(--yolk);
  color: var(--on-yolk);
  border: 2px solid var(--ink);
  border-radius: var(--r-panel);
}
.lead.done {
  background: var(--leaf-wash);
  border-color: var(--leaf);
  color: var(--ink);
}
.lead .figure {
  display: flex;
  align-items: baseline;
  line-height: 1;
}
.lead .figure b {
  font-size: 92px;
  font-weight: 780;
  letter-spacing: -0.02em;
}
.lead .figure small {
  font-size: 34px;
  font-weight: 700;
}
.lead .says {
  flex: 1 1 160px;
  display: grid;
  gap: 4px;
}
.lead .says b {
  font-size: 21px;
  line-height: 1.15;
}
.do {
  display: grid;
  gap: var(--s1);
}
.do .go {
  min-height: 58px;
}
.do .el-button + .el-button {
  margin-left: 0;
}
.stove {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
  align-items: center;
  justify-content: center;
}
.stove > :first-child {
  flex: 1 1 300px;
}
.steps {
  margin: 0;
  padding: var(--s3) var(--s3) var(--s3) var(--s6);
  display: grid;
  gap: 6px;
}
.trouble {
  display: flex;
  gap: var(--s2);
  align-items: center;
  color: var(--beet);
}
.work > .ghost {
  align-self: flex-start;
}
.makes {
  display: grid;
  gap: var(--s2);
  padding-bottom: var(--s3);
}
.makes > :not(header) {
  margin: 0 var(--s4);
}
.count {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: var(--s2);
}
.count p {
  text-align: center;
  color: var(--ink-2);
  font-size: 14px;
}
.count b {
  display: block;
  font-size: var(--t-arm);
  line-height: 1;
  font-weight: 780;
  color: var(--ink);
}
dl {
  display: grid;
  gap: 4px;
  padding-top: var(--s2);
  border-top: 1.5px solid var(--hair);
}
dl div {
  display: flex;
  justify-content: space-between;
  gap: var(--s3);
}
dt {
  color: var(--ink-2);
  white-space: nowrap;
}
dd {
  margin: 0;
  font-weight: 700;
  text-align: right;
}
dd.long {
  font-weight: 500;
}
.mind ul {
  list-style: none;
  margin: 0;
  padding: var(--s2) var(--s4) var(--s3);
  display: grid;
  gap: var(--s2);
}
.mind li {
  display: flex;
  gap: var(--s2);
}
.mind svg {
  flex: none;
  color: var(--beet);
}
@media (max-width: 1100px) {
  .area-bar {
    flex-wrap: wrap;
  }
  .new {
    margin: 0;
    align-self: center;
  }
  .work {
    overflow: visible;
  }
}
@media (max-width: 600px) {
  .area-bar p {
    display: none;
  }
  .area-bar h1 {
    margin-right: auto;
  }
  .work {
    padding: 0 var(--s3) var(--s3);
  }
  .work > header {
    flex-wrap: wrap;
    gap: 0 var(--s2);
  }
  .work > header h2 {
    flex: 1 1 45%;
  }
  .work > header p {
    order: 3;
    flex: 1 1 100%;
  }
  .lead .figure b {
    font-size: 76px;
  }
}
</style>
