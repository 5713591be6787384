<script setup lang="ts">
import { ask } from '@/parts/ask'
import { useAsked } from '@/parts/useAsked'
import { copyOf } from '@/parts/useSaved'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { waits } from '@/away/outbox'
import { say } from '@/parts/say'
import { api, got, said, type Schemas } from '@/api/client'
import { useBench } from '@/bench/bench'
import { flourMethods, forms, places, unitLabels } from '@/bench/choices'
import AllergenLine from '@/parts/AllergenLine.vue'
import AmountField from '@/parts/AmountField.vue'
import Icon from '@/parts/Icon.vue'
import OpenLinesDialog from './OpenLinesDialog.vue'
import { useKitchen } from '@/kitchen/kitchen'
import { useBases, type Base, type Fingerprint } from './bases'
import { styles } from './words'

/** A recipe as it was pasted, and line by line what was understood of it. */
const open = defineModel<boolean>({ required: true })
const bases = useBases()
const bench = useBench()
const router = useRouter()
const text = ref('')
const name = ref('')
const form = ref<Schemas['Form']>()
const flourMethod = ref<Schemas['FlourMethod']>()
const kitchen = useKitchen()
/** Said once, it is what this kitchen's recipes mean by a cup of flour. */
async function fillsCups(method: Schemas['FlourMethod']) {
  flourMethod.value = method
  if (!kitchen.own) await kitchen.load()
  if (kitchen.own && !(await kitchen.save({ ...kitchen.own, flour_method: method })))
    say({ message: 'It is used here; the kitchen could not remember it.', duration: 5000 })
}
const fixes = ref<Record<number, Schemas['ReadingFix']>>({})
const notKept = ref('')
const busy = ref(false)

watch(open, (o) => {
  if (!o) return
  void bases.loadIngredients()
  text.value = name.value = notKept.value = ''
  form.value = flourMethod.value = undefined
  question.clear()
  fixes.value = {}
})
let sent: Schemas['ReadingFix'][] = [] // with the last question
const question = useAsked(
  async (signal) => {
    if (!text.value.trim()) return
    sent = Object.values(fixes.value)
    const data = await ask(
      '/readings',
      {
        text: text.value,
        ...(form.value ? { form: form.value } : {}),
        ...(flourMethod.value ? { flour_method: flourMethod.value } : {}),
        ...(name.value ? { name: name.value } : {}),
        fixes: sent,
      },
      { signal },
    )
    if (!name.value && data.title) name.value = data.title
    const traits = data.base && (await ask('/fingerprints', { ...data.base, name: name.value || data.base.name }, { signal }).catch(unreadTraits))
    return { data, traits }
  },
  { afterMs: 250 },
)
const unreadTraits = (e: unknown): Fingerprint => ({ ratios: [], sentences: [said(e)], flour_g: 0 })
/** What is wrong with what the cook said of a line, by the line. */
const lineTrouble = computed(() =>
  Object.fromEntries(
    Object.entries(question.faults.value).flatMap(([pointer, message]) => {
      const fix = sent[Number(/^fixes\/(\d+)/.exec(pointer)?.[1] ?? -1)]
      return fix ? [[fix.line, message]] : []
    }),
  ),
)
const trouble = computed(() =>
  Object.keys(lineTrouble.value).length ? '' : (question.trouble.value ?? Object.values(question.faults.value)[0] ?? ''),
)
const reading = computed(() => (trouble.value ? undefined : question.answer.value?.data))
const print = computed(() => question.answer.value?.traits)
const readSoon = question.soon
watch(text, () => {
  fixes.value = {}
  name.value = ''
  void readSoon()
})
watch([form, fixes, flourMethod], () => void readSoon(), { deep: true })

function fix(i: number, patch: Partial<Schemas['ReadingFix']>) {
  const l = reading.value?.lines[i]
  fixes.value = {
    ...fixes.value,
    [i]: {
      ...(l?.ingredient ? { ingredient: l.ingredient } : {}),
      ...(l?.amount ? { amount: l.amount, unit: l.unit } : {}),
      ...fixes.value[i],
      line: i,
      ...patch,
    },
  }
}
/** The units that fit what it is, and the one that was read. */
const units = (id?: string, read?: Schemas['Unit']) =>
  [...new Set([...(bases.ingredients.find((x) => x.id === id)?.units ?? ['g', 'each']), ...(read ? [read] : [])])] as Schemas['Unit'][]
const nameOf = (id?: string) => (bases.ingredients.find((x) => x.id === id)?.name ?? '').toLowerCase()
const suggestion = (s: Schemas['ReadingFix'], was?: string) =>
  `${s.amount} ${unitLabels[s.unit ?? 'g']} ${s.ingredient === was ? '' : nameOf(s.ingredient)}`.trim()
const stillOpen = computed(() => reading.value?.lines.filter((l, i) => l.status !== 'read' && !fixes.value[i]?.leave_out) ?? [])
const base = computed<Base | undefined>(() => reading.value?.base && { ...reading.value.base, name: name.value || reading.value.base.name })
const input = ref<HTMLInputElement>()
async function fromFile(e: Event) {
  const file = (e.target as HTMLInputElement).files?.[0]
  if (file) text.value = await file.text()
}
const list = ref<HTMLElement>()
function showOpen() {
  list.value?.querySelector('li:not([data-status=read]):not(.out)')?.scrollIntoView({ block: 'center' })
}
const signs = { read: 'in_band', unsure: 'unknown', not_understood: 'high' } as const
const statusWords = { read: 'read', unsure: 'not sure', not_understood: 'not understood' } as const

/** A recipe with more than its base is kept as one; the base alone is the other choice. */
const whole = computed(() => !!reading.value?.whole)
const onlyBase = computed(() => {
  const n = reading.value?.additions.length ?? 0
  return n === 0 ? 'Only the base' : `Only the base, without its ${n === 1 ? 'addition' : `${n} additions`}`
})

/** What is still open is told before anything is kept. */
const asking = ref(false)
const wanted = ref(false)
function wants(recipe: boolean) {
  wanted.value = recipe
  asking.value = stillOpen.value.length > 0
  if (!asking.value) void keep(recipe)
}
function keepSo() {
  asking.value = false
  void keep(wanted.value)
}
function backToLines() {
  asking.value = false
  showOpen()
}

async function keep(recipe: boolean) {
  if (!base.value || !reading.value?.variation) return
  busy.value = true
  notKept.value = ''
  try {
    const { id: source_text } = await got(api.POST('/texts', { body: { text: text.value } }))
    if (recipe) {
      await bench.create({
        ...reading.value.variation,
        name: base.value.name,
        base: { ...reading.value.variation.base, name: base.value.name, source_text },
      })
      open.value = false
      void router.push('/')
      return
    }
    const saved = await bases.create(copyOf({ ...base.value, source_text }) as Base)
    open.value = false
    say({ message: saved.landed ? `“${saved.answer.document.name}” is among your bases.` : waits(`“${base.value.name}”`), duration: 4000 })
  } catch (e) {
    notKept.value = said(e) // what was read stays where it is
  }
  busy.value = false
}
</script>

<template>
  <el-dialog v-model="open" title="Read a recipe" width="min(1180px, 96vw)" top="3vh" append-to-body @closed="busy = false">
    <div v-if="open" class="reader">
      <div class="paste">
        <div class="how">
          <label for="paste">Paste it as you have it: a note, a message, a saved page</label>
          <input ref="input" type="file" accept=".txt,.md,.html,.htm,.json,.jsonld,text/*" class="vh" aria-label="Recipe file" @change="fromFile" />
          <el-button @click="input?.click()">From a file</el-button>
        </div>
        <el-input
          id="paste"
          v-model="text"
          type="textarea"
          :rows="18"
          resize="none"
          placeholder="1 1/2 cups plain flour, sifted&#10;2 eggs&#10;300 ml milk" />
      </div>
      <div class="understood">
        <p v-if="trouble" class="fault" role="alert"><i class="sign high" />{{ trouble }}</p>
        <p v-else-if="!reading" class="well none">What is understood appears here, line by line.</p>
        <template v-else>
          <p class="sum" role="status">
            <b>{{ reading.lines.length }}</b> ingredients; {{ reading.steps.length }} {{ reading.steps.length === 1 ? 'step' : 'steps'
            }}<template v-if="reading.language !== 'English'">; read as {{ reading.language }}</template>
            <el-button v-if="stillOpen.length" @click="showOpen"><i class="sign high" />{{ stillOpen.length }} to look at</el-button>
          </p>
          <p v-if="reading.said?.text" class="asks">It says: {{ reading.said.text }}</p>
          <div v-if="reading.flour_method" class="row cups">
            <span id="cups"
              ><i v-if="reading.asks_flour_method" class="sign unknown" />{{
                reading.asks_flour_method ? 'How does the flour get into the cup?' : 'Flour gets into the cup'
              }}</span
            >
            <el-radio-group
              :model-value="reading.flour_method"
              class="pick"
              aria-labelledby="cups"
              @update:model-value="fillsCups($event as Schemas['FlourMethod'])"
              ><el-radio-button v-for="m in flourMethods" :key="m.value" :value="m.value">{{ m.label }}</el-radio-button></el-radio-group
            >
          </div>
          <ul ref="list" class="lines">
            <li
              v-for="(l, i) in reading.lines"
              :key="i"
              class="well"
              :data-status="l.status"
              :data-read="l.ingredient"
              :class="{ out: fixes[i]?.leave_out }">
              <p class="text">
                <i class="sign" :class="signs[l.status]" /><span class="vh">{{ statusWords[l.status] }}</span
                >{{ l.text
                }}<el-button v-if="l.or && !fixes[i]?.leave_out" class="or" @click="fix(i, l.or)">or {{ nameOf(l.or.ingredient) }}</el-button
                ><small v-if="l.goes_to === 'addition'" class="chip rim">addition</small>
              </p>
              <div class="row">
                <el-select
                  :model-value="fixes[i]?.ingredient ?? l.ingredient"
                  filterable
                  placeholder="What is it?"
                  :aria-label="`Ingredient of “${l.text}”`"
                  class="what"
                  @update:model-value="fix(i, { ingredient: $event as string })"
                  ><el-option v-for="o in bases.ingredients" :key="o.id" :value="o.id" :label="o.name"
                /></el-select>
                <AmountField
                  class="much"
                  :label="`Amount of “${l.text}”`"
                  :model-value="fixes[i]?.amount ?? l.amount"
                  :unit="fixes[i]?.unit ?? l.unit ?? 'g'"
                  free
                  placeholder="how much"
                  @read="fix(i, $event)" />
                <el-select
                  :model-value="fixes[i]?.unit ?? l.unit ?? 'g'"
                  class="unit"
                  :aria-label="`Unit of “${l.text}”`"
                  @update:model-value="fix(i, { unit: $event as Schemas['Unit'] })"
                  ><el-option
                    v-for="u in units(fixes[i]?.ingredient ?? l.ingredient, fixes[i]?.unit ?? l.unit)"
                    :key="u"
                    :value="u"
                    :label="unitLabels[u]"
                /></el-select>
                <el-select
                  v-if="l.place || fixes[i]?.place"
                  :model-value="fixes[i]?.place ?? l.place"
                  class="place"
                  :aria-label="`Where “${l.text}” goes`"
                  @update:model-value="fix(i, { place: $event as Schemas['ReadingFix']['place'] })"
                  ><el-option value="bowl" label="in the bowl" /><el-option v-for="(words, p) in places" :key="p" :value="p" :label="words"
                /></el-select>
                <el-button
                  class="ghost"
                  :aria-label="fixes[i]?.leave_out ? `Put “${l.text}” back` : `Leave out “${l.text}”`"
                  @click="fix(i, { leave_out: !fixes[i]?.leave_out || undefined })"
                  ><Icon :name="fixes[i]?.leave_out ? 'undo' : 'bin'" :size="18"
                /></el-button>
              </div>
              <p v-if="lineTrouble[i]" class="fault" role="alert">{{ lineTrouble[i] }}</p>
              <p v-else-if="l.asks && !fixes[i]?.leave_out" class="asks">
                {{ l.asks }}
                <el-button v-if="l.suggests" @click="fix(i, l.suggests)">{{ suggestion(l.suggests, l.ingredient) }}</el-button>
                <el-button v-if="l.goes_to" @click="fix(i, {})">It is right</el-button>
              </p>
            </li>
          </ul>
        </template>
      </div>
      <form novalidate class="foot" @submit.prevent="wants(whole)">
        <p v-if="notKept" class="fault" role="alert"><i class="sign high" />Not saved. {{ notKept }}</p>
        <el-input v-model="name" maxlength="200" placeholder="Name of the base" aria-label="Name of the base" />
        <el-select :model-value="form ?? reading?.form" placeholder="For" aria-label="Form" @update:model-value="form = $event as Schemas['Form']"
          ><el-option v-for="f in forms" :key="f.value" :value="f.value" :label="f.label"
        /></el-select>
        <span v-if="base?.style" class="chip">{{ styles[base.style] }}</span>
        <p class="said">{{ print?.sentences[0] }}</p>
        <AllergenLine v-if="reading" :text="reading.allergen_text" class="allergens" />
        <el-button v-if="whole" :disabled="!base || busy" @click="wants(false)">{{ onlyBase }}</el-button>
        <el-button class="go" native-type="submit" :disabled="!base || busy">{{ whole ? 'Save the recipe as it is' : 'Save the base' }}</el-button>
      </form>
      <OpenLinesDialog v-model="asking" :lines="stillOpen" @keep="keepSo" @back="backToLines" />
    </div>
  </el-dialog>
</template>

<style scoped>
.reader {
  display: grid;
  grid-template: minmax(0, 1fr) auto / minmax(0, 1fr) minmax(0, 1.5fr);
  gap: var(--s3);
  height: min(640px, 78vh);
}
.paste {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.how {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: var(--s2);
  padding-bottom: var(--s1);
}
.how label {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
.paste :deep(.el-textarea),
.paste :deep(textarea) {
  flex: 1;
  height: 100%;
}
.paste :deep(textarea) {
  border-radius: var(--r-ctl);
  box-shadow: 0 0 0 1.5px var(--edge) inset;
  color: var(--ink);
}
.understood {
  overflow: auto;
  min-height: 0;
}
.lines {
  list-style: none;
  margin: 0;
  padding: 2px;
  display: grid;
  gap: 6px;
}
li {
  padding: 6px var(--s2);
}
li[data-status='not_understood'] {
  box-shadow: inset 0 0 0 2px var(--beet);
}
li[data-status='unsure'] {
  box-shadow: inset 0 0 0 1.5px var(--edge);
}
li.out {
  opacity: 0.5;
}
.text {
  display: flex;
  align-items: center;
  gap: var(--s2);
  font-weight: 600;
  padding-bottom: 4px;
}
.text small,
.text .or {
  margin-left: auto;
}
.row {
  display: flex;
  gap: 6px;
  align-items: center;
}
.what {
  flex: 1;
  min-width: 0;
}
.row .much {
  width: 96px;
}
.unit {
  width: 108px;
}
.cups span {
  display: inline-flex;
  align-items: center;
  gap: var(--s2);
}
.cups {
  flex-wrap: wrap;
  padding-bottom: var(--s2);
}
.place {
  width: 116px;
}
.row :deep(.el-input__wrapper),
.row :deep(.el-select__wrapper) {
  padding: 0 var(--s2);
}
.ghost {
  width: var(--touch);
  padding: 0;
}
.asks {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s1) var(--s2);
  color: var(--ink-2);
  font-size: var(--t-mini);
  padding-top: 2px;
}
.fault {
  display: flex;
  gap: var(--s2);
  color: var(--beet);
}
.none {
  padding: var(--s5);
  color: var(--ink-2);
  text-align: center;
}
.sum {
  padding-bottom: var(--s1);
}
.foot {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2) var(--s3);
}
.foot .el-input {
  width: 220px;
}
.foot .el-select {
  width: 130px;
}
.allergens,
.foot .fault {
  flex-basis: 100%;
  order: -1;
}
.said {
  flex: 1;
  min-width: 160px;
  font-size: var(--t-mini);
  color: var(--ink-2);
}
@media (max-width: 820px) {
  .reader {
    display: flex;
    flex-direction: column;
    height: auto;
  }
  .paste :deep(textarea) {
    height: 28vh;
  }
  .row {
    flex-wrap: wrap;
  }
  .what {
    flex-basis: 100%;
  }
}
</style>
