<script setup lang="ts">
import { ask } from '@/parts/ask'
import { useAsked } from '@/parts/useAsked'
import { copyOf } from '@/parts/useSaved'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { waits } from '@/away/outbox'
import { say } from '@/parts/say'
import { offerUndo } from '@/parts/undo'
import { api, got, said, type Schemas } from '@/api/client'
import { useBench } from '@/bench/bench'
import { flourMethods, forms } from '@/bench/choices'
import AllergenLine from '@/parts/AllergenLine.vue'
import OpenLinesDialog from './OpenLinesDialog.vue'
import { useKitchen } from '@/kitchen/kitchen'
import { useBases, type Base, type Fingerprint } from './bases'
import ReadLines from './ReadLines.vue'
import type { Fixes } from './reading'
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
const fixes = ref<Fixes>({})
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
  first.value = {}
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
      ...(patch.amount === undefined ? {} : { both: undefined }), // what is typed is all of it
      line: i,
      ...patch,
    },
  }
}
const stillOpen = computed(() => reading.value?.lines.filter((l, i) => l.status !== 'read' && !fixes.value[i]?.leave_out) ?? [])
const base = computed<Base | undefined>(() => reading.value?.base && { ...reading.value.base, name: name.value || reading.value.base.name })
const input = ref<HTMLInputElement>()
async function fromFile(e: Event) {
  const file = (e.target as HTMLInputElement).files?.[0]
  if (file) text.value = await file.text()
}
/** What each line was taken for before it was put right. */
const first = ref<Record<number, string | undefined>>({})
watch(reading, (now) => {
  for (const [i, l] of now?.lines.entries() ?? []) if (!fixes.value[i]) first.value[i] = l.ingredient
})
/** A word of the kitchen's own for an ingredient is kept, and forgotten again by a tap. */
async function teach(at: number) {
  const l = reading.value?.lines[at]
  const ingredient = fixes.value[at]?.ingredient
  if (!l?.called || !ingredient) return
  if (!kitchen.own) await kitchen.load()
  const had = kitchen.own?.words ?? []
  const word = l.called
  if (!kitchen.own || !(await kitchen.save({ ...kitchen.own, words: [...had.filter((w) => w.word !== word), { word, ingredient }] }))) {
    say({ message: 'The kitchen could not remember it.', duration: 5000 })
    return
  }
  delete first.value[at]
  offerUndo(`“${word}” is remembered.`, () => kitchen.own && kitchen.save({ ...kitchen.own, words: had }))
}
const list = ref<InstanceType<typeof ReadLines>>()
function showOpen() {
  ;(list.value?.$el as HTMLElement | undefined)?.querySelector('li:not([data-status=read]):not(.out)')?.scrollIntoView({ block: 'center' })
}
/** Marks in the text where a line is said. */
const paste = ref<{ textarea?: HTMLTextAreaElement }>()
function showSpan(span: number[]) {
  const field = paste.value?.textarea
  if (!field) return
  field.focus()
  field.setSelectionRange(span[0]!, span[1]!)
  const share = span[0]! / Math.max(1, text.value.length) // near enough to bring it into sight
  field.scrollTop = share * field.scrollHeight - field.clientHeight / 2
}

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
      const called = name.value || reading.value.variation.name
      const kept = await bench.createRecipe({
        ...reading.value.variation,
        name: called,
        base: { ...reading.value.variation.base, name: base.value.name, source_text },
      })
      open.value = false
      void router.push('/')
      if (kept.sauces.length) offerUndo(`“${called}” is kept, with ${kept.sauces.map((n) => `“${n}”`).join(' and ')} among the sauces.`, kept.undo)
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
          ref="paste"
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
          <p v-if="reading.bowl" class="strip" :class="{ asked: reading.bowl.asks }">
            <i v-if="reading.bowl.asks" class="sign unknown" /><b>{{ reading.bowl.text }}</b>
            <span v-if="reading.said?.text">“{{ reading.said.text }}”</span>
            <span v-if="reading.bowl.asks">{{ reading.bowl.asks }}</span>
          </p>
          <p v-else-if="reading.said?.text" class="asks">It says: {{ reading.said.text }}</p>
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
          <ReadLines ref="list" :reading="reading" :fixes="fixes" :trouble="lineTrouble" :first="first" @fix="fix" @show="showSpan" @teach="teach" />
        </template>
      </div>
      <form novalidate class="foot" @submit.prevent="wants(whole)">
        <p v-if="notKept" class="fault" role="alert"><i class="sign high" />Not saved. {{ notKept }}</p>
        <el-input
          v-model="name"
          maxlength="200"
          :placeholder="whole ? reading?.variation?.name : 'Name of the base'"
          :aria-label="whole ? 'Name of the recipe' : 'Name of the base'" />
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
.row {
  display: flex;
  gap: 6px;
  align-items: center;
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
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 var(--s2);
  padding-bottom: var(--s1);
}
.strip {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 var(--s2);
  margin-bottom: var(--s2);
  padding: var(--s1) var(--s2);
  border-radius: var(--r-ctl);
  background: var(--well);
}
.strip.asked {
  box-shadow: inset 0 0 0 1.5px var(--edge);
}
.strip span {
  flex-basis: 100%;
  color: var(--ink-2);
  font-size: var(--t-mini);
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
}
</style>
