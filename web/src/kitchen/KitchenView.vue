<script setup lang="ts">
import FigureField from '@/parts/FigureField.vue'
import AmountField from '@/parts/AmountField.vue'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { waitingFor } from '@/away/outbox'
import { ask } from '@/parts/ask'
import { copyOf, useSaved } from '@/parts/useSaved'
import TwoSides from '@/parts/TwoSides.vue'
import SaveChip from '@/parts/SaveChip.vue'
import { say } from '@/parts/say'
import { flourMethods } from '@/bench/choices'
import Icon from '@/parts/Icon.vue'
import type { IconName } from '@/parts/icons'
import { newKey, said } from '@/api/client'
import EarlierKitchens from './EarlierKitchens.vue'
import PlateHeat from './PlateHeat.vue'
import OtherTablets from '@/house/OtherTablets.vue'
import PutAside from './PutAside.vue'
import { useBases } from '@/bases/bases'
import { useKitchen, type Own } from './kitchen'

const kitchen = useKitchen()
const bases = useBases()
void bases.loadIngredients()
const wordOf = (id: string) => bases.ingredients.find((i) => i.id === id)?.name ?? 'no longer in the pantry'
/** It saves itself, a moment after the last change; what is typed meanwhile is never overwritten. */
const kept = useSaved<Own>({ send: (_, document, over) => kitchen.put(document, over), saved: () => take(), saveAfterMs: 700 })
const { doc: form, saveState, saveTrouble, conflict, faults } = kept
const take = () => kitchen.own && kept.show({ id: 'kitchen', revision: kitchen.revision, document: kitchen.own })
onMounted(async () => {
  await kitchen.load()
  take()
})
const state = computed(() => (saveState.value === 'saved' && waitingFor('/kitchen') ? 'offline' : saveState.value))
watch(
  () => kitchen.revision,
  () => (saveState.value === 'saved' || saveState.value === 'offline') && take(),
)
watch(form, () => JSON.stringify(form.value) !== JSON.stringify(kitchen.own) && kept.edited(), { deep: true })
function goBack(own: Own) {
  form.value = copyOf(own)
  say({ message: 'It is as it was then. “As it was” has the other as well.', duration: 6000, showClose: true })
}
const fault = (pointer: string) => faults.value[pointer]
const save = () => kept.save()
onBeforeUnmount(save)

/** The kitchen's own measures, weighed once: a gram of water is a millilitre. */
const own = [
  { key: 'mug_ml', label: 'Your mug: water in it (g)' },
  { key: 'glass_ml', label: 'Your glass: water in it (g)' },
  { key: 'handful_ml', label: 'A handful, in a jug (ml)' },
] as const
const eggTrouble = ref('')
async function inShell(shell: number | null | undefined) {
  if (!shell || !form.value) return
  try {
    form.value.egg_g = (await ask('/eggs', { shell_g: shell })).egg_g
    eggTrouble.value = ''
  } catch (e) {
    eggTrouble.value = said(e)
  }
}

/** What was taken off last can be put back. */
const lastGone = ref<() => void>()
function takeOut(list: 'ladles' | 'griddles' | 'irons' | 'words', i: number) {
  const gone = form.value?.[list]?.splice(i, 1)[0]
  if (!gone) return
  say({ message: `${'word' in gone ? `“${gone.word}”` : gone.name} is off the list. “Put back” brings it back.`, duration: 6000, showClose: true })
  lastGone.value = () => (form.value?.[list] as (typeof gone)[] | undefined)?.splice(i, 0, gone)
}
function putBack() {
  lastGone.value?.()
  lastGone.value = undefined
}
const id = () => newKey().slice(0, 8)
/** A new thing as the program says they usually are. */
function put(list: 'ladles' | 'griddles' | 'irons', thing: Own[typeof list] extends (infer T)[] | undefined ? T | undefined : never) {
  if (form.value && thing) form.value[list] = [...(form.value[list] ?? []), { ...thing, id: id() }] as never
}
/** What may stand there, and the step of the hand; what is outside gets its sentence, never another figure. */
const limit = (name: string) => {
  const l = kitchen.form?.limits[name]
  return l ? { title: `between ${l.low} and ${l.high}` } : {}
}
const stepped = (name: string) => ({ ...limit(name), step: kitchen.form?.limits[name]?.step, limits: kitchen.form?.limits[name] })
const icons: Record<string, IconName> = { ladle: 'pour', griddle: 'griddle', iron: 'iron' }
</script>

<template>
  <main id="work" tabindex="-1" class="kitchen">
    <header class="bar area-bar">
      <h1>Kitchen</h1>
      <p class="muted">What you cook with. Every figure on the bench uses it.</p>
      <el-button v-if="lastGone" @click="putBack"><Icon name="undo" />Put back</el-button>
      <EarlierKitchens v-else @chosen="goBack" />
      <SaveChip v-if="form" :state="state" :trouble="saveTrouble" />
    </header>
    <TwoSides past :conflict="conflict" @settle="kept.settle" />
    <p v-if="kitchen.trouble" class="panel trouble" role="alert">
      <i class="sign high" />{{ kitchen.trouble }} <el-button @click="kitchen.load">Try again</el-button>
    </p>
    <el-form v-if="form" novalidate class="grid" label-position="top" @submit.prevent="save">
      <div class="column">
        <section class="panel">
          <header><h2>Measures</h2></header>
          <div class="fields">
            <el-form-item label="Name" :error="fault('name')" class="wide"><el-input v-model="form.name" maxlength="200" /></el-form-item>
            <el-form-item label="Cups and spoons" :error="fault('measures')" class="wide">
              <el-select v-model="form.measures" aria-label="Cups and spoons">
                <el-option v-for="m in kitchen.form?.measures" :key="m.measures" :value="m.measures" :label="m.says" />
              </el-select>
            </el-form-item>
            <el-form-item label="One egg, no shell (g)" :error="fault('egg_g')"
              ><FigureField v-model="form.egg_g" v-bind="stepped('egg_g')" label="One egg in grams"
            /></el-form-item>
            <el-form-item label="or by its size">
              <el-select
                :model-value="undefined"
                placeholder="what the box says"
                aria-label="The size of your eggs"
                @update:model-value="form.egg_g = $event">
                <el-option v-for="e in kitchen.form?.eggs ?? []" :key="e.label" :value="e.egg_g" :label="e.label" />
              </el-select>
            </el-form-item>
            <el-form-item label="or one in its shell (g)" :error="eggTrouble"
              ><AmountField :model-value="undefined" placeholder="weigh it" label="One egg weighed in its shell" @update:model-value="inShell"
            /></el-form-item>
            <el-form-item v-for="m in own" :key="m.key" :label="m.label" :error="fault(m.key)"
              ><FigureField v-model="form[m.key]" v-bind="stepped('own_ml')" placeholder="not yet" :label="m.label"
            /></el-form-item>
            <el-form-item label="A heaped tablespoon of flour (g)" :error="fault('heaped_g')"
              ><FigureField
                v-model="form.heaped_g"
                v-bind="stepped('heaped_g')"
                placeholder="two level ones"
                label="Flour in a heaped tablespoon, in grams"
            /></el-form-item>
            <el-form-item label="Flour in a recipe's cup" :error="fault('flour_method')">
              <el-select v-model="form.flour_method" clearable placeholder="ask each time" aria-label="How flour gets into the cup">
                <el-option v-for="m in flourMethods" :key="m.value" :value="m.value" :label="m.label" />
              </el-select>
            </el-form-item>
            <el-form-item label="Altitude (m)" :error="fault('altitude_m')"
              ><FigureField v-model="form.altitude_m" v-bind="stepped('altitude_m')" label="Altitude in metres"
            /></el-form-item>
            <el-form-item label="Scale shows steps of (g)" :error="fault('scale_step_g')"
              ><FigureField v-model="form.scale_step_g" v-bind="stepped('scale_step_g')" label="Step of the scale in grams"
            /></el-form-item>
            <el-form-item label="Fine scale, for powder (g)" :error="fault('leavener_step_g')"
              ><FigureField v-model="form.leavener_step_g" v-bind="stepped('leavener_step_g')" label="Step of the fine scale in grams"
            /></el-form-item>
            <el-form-item label="Prices in" :error="fault('currency')"
              ><el-input v-model="form.currency" maxlength="8" placeholder="sign or letters"
            /></el-form-item>
            <el-form-item label="Show amounts in">
              <el-radio-group v-model="form.units" class="pick" aria-label="Show amounts in"
                ><el-radio-button value="grams">grams</el-radio-button><el-radio-button value="cups">cups</el-radio-button></el-radio-group
              >
            </el-form-item>
            <el-form-item label="Keys of one letter"
              ><el-switch
                :model-value="form.letter_keys ?? true"
                aria-label="Keys of one letter"
                @update:model-value="form.letter_keys = $event as boolean"
            /></el-form-item>
          </div>
        </section>
        <section class="panel">
          <header>
            <h2>Plates and pans</h2>
            <p class="end">the first is in use; crêpes take the first round one</p>
          </header>
          <ul>
            <li v-for="(g, i) in form.griddles" :key="g.id" class="well">
              <Icon :name="icons.griddle!" /><el-input v-model="g.name" :aria-label="`Name of plate ${i + 1}`" />
              <el-checkbox :model-value="!!g.round" @update:model-value="g.round = $event as boolean">round</el-checkbox>
              <AmountField v-model="g.width_cm" v-bind="limit('width_cm')" :label="`Width of ${g.name} in cm`" />
              <template v-if="!g.round"
                ><span>×</span><AmountField v-model="g.depth_cm" v-bind="limit('depth_cm')" :label="`Depth of ${g.name} in cm`" /></template
              ><span>cm</span>
              <el-button class="ghost" :aria-label="`Take ${g.name} off the list`" @click="takeOut('griddles', i)"><Icon name="bin" /></el-button>
              <small v-if="g.round" class="muted floor">cm across its flat floor: a pan sold as 28 has about 23</small>
              <PlateHeat v-model="form.griddles![i]!" :limit="limit" :fault="(f) => fault(`griddles/${i}/${f}`)" />
              <p v-if="fault(`griddles/${i}/width_cm`) || fault(`griddles/${i}/depth_cm`)" class="fault" role="alert">
                {{ fault(`griddles/${i}/width_cm`) ?? fault(`griddles/${i}/depth_cm`) }}
              </p>
            </li>
          </ul>
          <p v-if="!form.griddles?.length" class="none">No plate yet. With one the bench says how many lie on it.</p>
          <el-button class="dashed" @click="put('griddles', kitchen.form?.griddle)"><Icon name="plus" />Add a plate</el-button>
        </section>
      </div>
      <div class="column">
        <section class="panel">
          <header>
            <h2>Ladles and scoops</h2>
            <p class="end">fill it with water on the scale: grams are ml; a jug counts too, by its mark or by what the scale loses</p>
          </header>
          <ul>
            <li v-for="(l, i) in form.ladles" :key="l.id" class="well">
              <Icon :name="icons.ladle!" /><el-input v-model="l.name" :aria-label="`Name of ladle ${i + 1}`" />
              <AmountField v-model="l.volume_ml" v-bind="limit('volume_ml')" :label="`Volume of ${l.name} in ml`" /><span>ml</span>
              <el-button class="ghost" :aria-label="`Take ${l.name} off the list`" @click="takeOut('ladles', i)"><Icon name="bin" /></el-button>
              <p v-if="fault(`ladles/${i}/volume_ml`) || fault(`ladles/${i}/name`)" class="fault" role="alert">
                {{ fault(`ladles/${i}/volume_ml`) ?? fault(`ladles/${i}/name`) }}
              </p>
            </li>
          </ul>
          <p v-if="!form.ladles?.length" class="none">No ladle yet. Fill yours with water on the scale and tell what it holds.</p>
          <el-button class="dashed" @click="put('ladles', kitchen.form?.ladle)"><Icon name="plus" />Add a ladle</el-button>
        </section>
        <section class="panel">
          <header>
            <h2>Waffle irons</h2>
            <p class="end">sizes of one waffle in mm; the first is in use</p>
          </header>
          <ul>
            <li v-for="(n, i) in form.irons" :key="n.id" class="well iron">
              <Icon :name="icons.iron!" /><el-input v-model="n.name" :aria-label="`Name of iron ${i + 1}`" />
              <el-checkbox :model-value="!!n.round" @update:model-value="n.round = $event as boolean">round</el-checkbox>
              <el-button class="ghost" :aria-label="`Take ${n.name} off the list`" @click="takeOut('irons', i)"><Icon name="bin" /></el-button>
              <div class="sizes">
                <label>across <AmountField v-model="n.width_mm" v-bind="limit('width_mm')" :label="`Width of a waffle of ${n.name} in mm`" /></label>
                <label v-if="!n.round"
                  >long <AmountField v-model="n.length_mm" v-bind="limit('length_mm')" :label="`Length of a waffle of ${n.name} in mm`"
                /></label>
                <label>high <AmountField v-model="n.depth_mm" v-bind="limit('depth_mm')" :label="`Height of a waffle of ${n.name} in mm`" /></label>
                <label>gap <AmountField v-model="n.gap_mm" v-bind="limit('gap_mm')" :label="`Gap of the plates of ${n.name} in mm`" /></label>
                <label>at once <AmountField v-model="n.moulds" v-bind="limit('moulds')" :label="`Waffles at once in ${n.name}`" /></label>
                <label title="Weigh the batter of one that came out well: it outranks the sizes"
                  >takes
                  <AmountField v-model="n.takes_g" v-bind="limit('takes_g')" placeholder="?" :label="`Batter that ${n.name} takes in g`" />
                  g</label
                >
                <label
                  >hot after
                  <AmountField
                    v-model="n.heat_up_min"
                    v-bind="limit('heat_up_min')"
                    :placeholder="`${kitchen.form?.iron.heat_up_min ?? ''}`"
                    :label="`Minutes until ${n.name} is hot`" />
                  min</label
                >
                <el-checkbox :model-value="!!n.light" @update:model-value="n.light = $event as boolean">has a light or tone</el-checkbox>
                <label v-if="n.light"
                  >that comes after
                  <AmountField v-model="n.closed_s" v-bind="limit('closed_s')" placeholder="?" :label="`Seconds until the light of ${n.name}`" />
                  s</label
                >
              </div>
              <p
                v-for="k in ['width_mm', 'length_mm', 'depth_mm', 'gap_mm', 'moulds', 'takes_g', 'heat_up_min', 'closed_s'].filter((f) =>
                  fault(`irons/${i}/${f}`),
                )"
                :key="k"
                class="fault"
                role="alert">
                {{ fault(`irons/${i}/${k}`) }}
              </p>
            </li>
          </ul>
          <p v-if="!form.irons?.length" class="none">No iron yet. With one the bench says how full a ladle fills it.</p>
          <el-button class="dashed" @click="put('irons', kitchen.form?.iron)"><Icon name="plus" />Add an iron</el-button>
        </section>
        <section v-if="form.words?.length" class="panel">
          <header>
            <h2>Words of our own</h2>
            <p class="end">recipes are read by them</p>
          </header>
          <ul>
            <li v-for="(w, i) in form.words" :key="w.word" class="well own-word">
              <b>{{ w.word }}</b><span>{{ wordOf(w.ingredient) }}</span>
              <el-button class="ghost" :aria-label="`Forget “${w.word}”`" @click="takeOut('words', i)"><Icon name="bin" /></el-button>
            </li>
          </ul>
        </section>
        <OtherTablets />
        <PutAside />
      </div>
    </el-form>
    <p v-else-if="!kitchen.trouble" class="panel wait">Opening the kitchen</p>
  </main>
</template>

<style scoped>
.floor {
  flex: 1 0 100%;
}
.kitchen {
  display: flex;
  flex-direction: column;
  min-height: 0;
  overflow: auto;
  padding: 0 var(--s3) var(--s3) 0;
}
.bar {
  flex-wrap: wrap;
  position: sticky;
  top: 0;
  background: var(--morning);
  z-index: 2;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(480px, 100%), 1fr));
  gap: 10px;
  align-items: start;
}
.column {
  display: grid;
  gap: 10px;
  align-content: start;
  min-width: 0;
}
.panel {
  padding-bottom: var(--s3);
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 var(--s4);
  padding: var(--s3) var(--s4) 0;
}
.wide {
  grid-column: 1 / -1;
}
.fields .el-form-item {
  margin-bottom: var(--s3);
}
.fields .figure-field,
.fields .amount-field {
  width: 100%;
}
ul {
  list-style: none;
  margin: 0;
  padding: var(--s3);
  display: grid;
  gap: var(--s2);
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2);
  padding: var(--s2);
}
li > .el-input {
  flex: 1 1 120px;
  min-width: 0;
}
li .amount-field {
  width: 74px;
}
li .ghost {
  width: var(--touch);
  padding: 0;
}
.sizes {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2) var(--s3);
  width: 100%;
  padding-left: 28px;
}
.sizes label {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  color: var(--ink-2);
  font-size: var(--t-mini);
}
.fault {
  width: 100%;
  color: var(--beet);
  font-size: var(--t-mini);
}
.dashed {
  margin: 0 var(--s3);
  width: calc(100% - 2 * var(--s3));
}
.none {
  padding: 0 var(--s4) var(--s3);
  color: var(--ink-2);
}
.trouble,
.wait {
  padding: var(--s3) var(--s4);
  margin-bottom: 10px;
  display: flex;
  gap: var(--s2);
  align-items: center;
}
@media (max-width: 900px) {
  .kitchen {
    padding: 0 var(--s3) var(--s3);
  }
}
@media (max-width: 560px) {
  .bar p {
    display: none;
  }
  .fields {
    grid-template-columns: 1fr;
  }
}
</style>
