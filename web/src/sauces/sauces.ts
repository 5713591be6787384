import { useDebounceFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { asItWillBe, bringBack, deliver, onLanded, putAside } from '@/away/outbox'
import { api, faultsOf, got, Refusal, said, useLatest, type Schemas } from '@/api/client'
import { useCatchUp } from '@/parts/catchUp'

export type Sauce = Schemas['Sauce']
export type Pot = Schemas['SauceAnswer']
export type Listed = Schemas['SauceListed']
export type Reading = Schemas['SauceReading']

const askAfterMs = 120 // of quiet
const saveAfterMs = 500

export const plainSauce = (s: Sauce): Sauce => JSON.parse(JSON.stringify(s)) as Sauce
const path = (id: string) => `/sauces/${id}`

/** The sauces that the kitchen keeps, and the one that is on the stove. */
export const useSauces = defineStore('sauces', () => {
  const there = shallowRef<Listed[]>()
  const list = computed(
    () =>
      there.value &&
      asItWillBe(
        there.value,
        (s) => path(s.id),
        (s, document) => ({ ...s, document: document as Sauce }),
      ),
  )
  const trouble = ref<string>()
  const id = ref<string>()
  const revision = ref(0)
  const doc = shallowRef<Sauce>()
  const pot = shallowRef<Pot>()
  const faults = ref<Record<string, string>>({})
  const reading = shallowRef<Reading>()
  const uses = shallowRef<Schemas['SauceUse'][]>()
  const saving = ref<'saved' | 'saving' | 'waiting'>('saved')

  async function load() {
    try {
      there.value = (await got(api.GET('/sauces'))).items
      trouble.value = undefined
    } catch (e) {
      trouble.value = said(e)
    }
  }
  const examples = shallowRef<Sauce[]>()
  const boiled = shallowRef<string[]>([])
  /** Worked examples, and which kinds are boiled down; asked for once. */
  async function loadExamples() {
    if (examples.value) return
    const shown = await got(api.GET('/sauce-examples'))
    examples.value = shown.items
    boiled.value = shown.boiled
  }
  /** What was read of a pot is kept by the tablet that read it, also over a reload. */
  const nameOf = (of: string) => `ladle.pot.${of}`
  async function open(of: string) {
    const listed = list.value?.find((s) => s.id === of)
    if (!listed) return
    id.value = of
    revision.value = listed.revision
    doc.value = plainSauce(listed.document)
    pot.value = undefined
    uses.value = undefined
    faults.value = {}
    try {
      reading.value = JSON.parse(localStorage.getItem(nameOf(of)) ?? 'null') ?? undefined
    } catch {
      reading.value = undefined
    }
    await Promise.all([work(), loadUses()])
  }
  const latest = useLatest()
  /** Works the pot out; whether it can be made as it is. */
  async function work(): Promise<boolean> {
    if (!doc.value) return false
    const ask = (now?: Reading) => got(api.POST('/sauce', { body: { sauce: { ...doc.value!, name: doc.value!.name || 'Sauce' }, now } }))
    try {
      const answer = await latest(ask(reading.value))
      if (!answer) return false
      pot.value = answer
      faults.value = {}
      trouble.value = undefined
      return true
    } catch (e) {
      const { '': general, ...fields } = faultsOf(e)
      const ofReading = Object.entries(fields).find(([k]) => k.startsWith('now'))
      if (ofReading) {
        read(undefined)
        faults.value = { now: ofReading[1] }
        const answer = await ask().catch(() => undefined)
        if (answer) pot.value = answer
        return true
      }
      faults.value = fields
      trouble.value = general
      return false
    }
  }
  async function loadUses() {
    const of = id.value
    if (!of) return
    try {
      const items = (await got(api.GET('/sauces/{id}/uses', { params: { path: { id: of } } }))).items
      if (id.value === of) uses.value = items
    } catch (e) {
      trouble.value = said(e)
    }
  }
  function read(now: Reading | undefined) {
    reading.value = now
    if (!id.value) return
    if (now) localStorage.setItem(nameOf(id.value), JSON.stringify(now))
    else localStorage.removeItem(nameOf(id.value))
  }
  /** A reading of the pot by one device, judged at once. */
  function shows(now: Reading) {
    faults.value = {}
    read(now)
    return work()
  }

  /** Saves what can be made; what cannot stays on the screen with its sentence. */
  async function save() {
    if (!doc.value || !id.value) return
    const of = id.value
    saving.value = 'saving'
    try {
      const sent = await deliver<Schemas['SavedSauce']>({
        what: `the sauce “${doc.value.name}”`,
        method: 'PUT',
        path: path(of),
        revision: revision.value,
        body: doc.value,
      })
      saving.value = sent.landed ? 'saved' : 'waiting'
      if (!sent.landed) return
      if (id.value === of) revision.value = sent.answer.revision
      await Promise.all([load(), loadUses()])
    } catch (e) {
      saving.value = 'saved'
      if (e instanceof Refusal && e.status === 409) {
        await load()
        await open(of)
        trouble.value = 'Another tablet changed this sauce meanwhile. Theirs is shown; change it again.'
      } else trouble.value = said(e)
    }
  }
  const saveSoon = useDebounceFn(save, saveAfterMs)
  const workSoon = useDebounceFn(
    async () => {
      if (await work()) void saveSoon()
    },
    askAfterMs,
    { maxWait: 3 * askAfterMs }, // a button that is held does not starve it
  )
  function change(patch: Partial<Sauce>) {
    if (!doc.value) return
    doc.value = JSON.parse(JSON.stringify({ ...doc.value, ...patch })) as Sauce
    void workSoon()
  }
  /** A whole sauce from the editor; the sentence at its field when it cannot be made. */
  async function keep(document: Sauce): Promise<Record<string, string> | undefined> {
    const was = doc.value
    doc.value = document
    if (!(await work())) {
      const wrong = { ...faults.value, ...(trouble.value ? { '': trouble.value } : {}) }
      doc.value = was
      faults.value = {}
      trouble.value = undefined
      return wrong
    }
    await save()
    return undefined
  }
  /** A new one; the fields' sentences when it cannot be made. */
  async function add(document: Sauce) {
    const sent = await deliver<Schemas['SavedSauce']>({ what: `the sauce “${document.name}”, new`, method: 'POST', path: '/sauces', body: document })
    if (sent.landed) {
      await load()
      await open(sent.answer.id)
    }
    return sent.landed
  }
  async function remove() {
    const of = id.value
    if (!of) return undefined
    const what = `the sauce “${doc.value?.name ?? ''}”`
    if ((await putAside(path(of), what)).landed) await load()
    doc.value = undefined
    pot.value = undefined
    id.value = undefined
    return async () => {
      if ((await bringBack(path(of), what)).landed) await load()
      await open(of)
    }
  }
  useCatchUp(trouble, async () => {
    await load()
    if (!trouble.value) await work()
  })
  onLanded(async (l) => {
    if (!l.path.startsWith('/sauces')) return
    await load()
    const now = there.value?.find((s) => s.id === id.value)
    if (now) revision.value = now.revision
    saving.value = 'saved'
    await loadUses()
  })
  watch(trouble, (t) => t && saving.value === 'saving' && (saving.value = 'saved'))
  return {
    examples,
    boiled,
    loadExamples,
    list,
    trouble,
    id,
    revision,
    doc,
    pot,
    faults,
    reading,
    uses,
    saving,
    load,
    open,
    work,
    loadUses,
    read,
    shows,
    change,
    keep,
    add,
    remove,
  }
})
