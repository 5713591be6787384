<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { deliver, waits } from '@/away/outbox'
import { api, got, said, type Schemas } from '@/api/client'
import ExportMenu from '@/parts/ExportMenu.vue'
import { onStep } from '@/parts/figures'
import Icon from '@/parts/Icon.vue'
import { say } from '@/parts/say'
import { sayPutAside } from '@/parts/undo'
import { useCounter } from '@/parts/useCounter'
import { useScale } from '@/parts/useScale'
import SaveChip from '@/parts/SaveChip.vue'
import TwoSides from '@/parts/TwoSides.vue'
import { ask } from '@/parts/ask'
import { copyOf } from '@/parts/useSaved'
import BoilingCurve from './BoilingCurve.vue'
import DevicesDialog from './DevicesDialog.vue'
import GoesOn from './GoesOn.vue'
import MakesPanel from './MakesPanel.vue'
import NewPotDialog from './NewPotDialog.vue'
import PotClock from './PotClock.vue'
import PotDrawing from './PotDrawing.vue'
import PotLead from './PotLead.vue'
import SauceEditor from './SauceEditor.vue'
import StopCards from './StopCards.vue'
import { useSauces, type Sauce } from './sauces'
import { useStove } from './useStove'
import { whenLabel } from './words'

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
  if (route.name !== 'sauces') return // on its way elsewhere
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
const newPot = ref(false)
const devices = ref(false)
const maths = ref(false)
const editor = ref<'old' | 'new'>('old')
function edit() {
  editor.value = 'old'
  editing.value = true
}
function blank() {
  newPot.value = false
  editor.value = 'new'
  editing.value = true
}
async function take(example: Sauce) {
  newPot.value = false
  try {
    const there = sauces.list?.filter((s) => s.document.name.startsWith(example.name)).length ?? 0
    await add({ ...copyOf(example), name: there ? `${example.name} ${there + 1}` : example.name })
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
    await ask('/sauce', { sauce: s })
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
function forget() {
  sauces.read(undefined)
  void sauces.work()
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
const general = computed(() => sauces.trouble ?? sauces.wrong ?? sauces.faults.now ?? Object.values(sauces.faults)[0])
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
        <p>
          {{ pot ? `${pot.kind_name}, ${whenLabel[pot.when]}, ${pot.served}` : '' }}
          <SaveChip :state="sauces.saveState" :trouble="sauces.saveTrouble" />
        </p>
        <span class="acts">
          <el-button class="ghost square" aria-label="Undo" title="Undo" :disabled="!sauces.canUndo" @click="sauces.undo"
            ><Icon name="undo"
          /></el-button>
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
      <template v-if="pot">
        <PotLead :pot="pot" :read="!!sauces.reading" :busy="busy" @read="read" @forget="forget" />
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
      <MakesPanel :pot="pot" :servings="servings" :kept="kept === pot.tub" :busy="busy" @count="count" @tub="tub" />
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
        :place="pot.place"
        :uses="sauces.uses"
        @changed="sauces.loadUses" />
    </aside>
    <TwoSides :conflict="sauces.conflict" @settle="sauces.settle" />
    <SauceEditor v-model="editing" :from="editor === 'old' ? sauces.doc : undefined" :keep="keep" />
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
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 var(--s2);
  padding-left: 0;
  padding-right: 0;
  align-items: center;
}
.work > header h2 {
  font-size: var(--t-figure);
  min-width: 0;
  overflow-wrap: anywhere;
}
.work > header p {
  grid-column: 1;
}
.acts {
  grid-column: 2;
  grid-row: 1 / 3;
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
  .work > header p {
    grid-column: 1 / -1;
  }
  .acts {
    grid-row: 1;
  }
}
</style>
