import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { draftsOf, keptAs } from '@/away/drafts'
import { asItWillBe, bringBack, deliver, onLanded, putAside } from '@/away/outbox'
import { api, faultsOf, got, Refusal, said, type Schemas } from '@/api/client'
import { ask } from '@/parts/ask'
import { useCatchUp } from '@/parts/catchUp'
import { useAsked } from '@/parts/useAsked'
import { copyOf, useSaved } from '@/parts/useSaved'

export type Sauce = Schemas['Sauce']
export type Pot = Schemas['SauceAnswer']
export type Listed = Schemas['SauceListed']
export type Reading = Schemas['SauceReading']

const askEveryMs = 360 // a button that is held shows what it does

const drafts = draftsOf<Sauce>('ladle.sauce.')
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
  const trouble = ref<string>() // of the list
  const kept = useSaved<Sauce, Schemas['SavedSauce']>({
    send: (of, body, over) => deliver({ what: `the sauce “${body.name}”`, method: 'PUT', path: path(of), revision: over, body }),
    changed: () => {
      void question.soon()
      return 'wait' // what cannot be made stays on the screen with its sentence
    },
    saved: () => void Promise.all([load(), loadUses()]),
    drafts,
  })
  const { id, doc, revision, saveState, saveTrouble, conflict } = kept
  const reading = shallowRef<Reading>()
  /** The pot, worked out: whether it can be made as it is. */
  const question = useAsked<Pot>((): Promise<Pot> | undefined => (doc.value ? workedOut(doc.value) : undefined), { atLeastEveryMs: askEveryMs })
  async function workedOut(d: Sauce) {
    const sauce = { ...d, name: d.name || 'Sauce' }
    const answer = await ask('/sauce', { sauce, now: reading.value }).catch((e: unknown) => withoutReading(e, sauce))
    if (saveState.value === 'changed') void kept.saveSoon()
    return answer
  }
  const { answer: pot } = question
  const faults = computed<Record<string, string>>(() => ({ ...question.faults.value, ...(wrong.value ? { now: wrong.value } : {}) }))
  const wrong = ref<string>() // with what was read
  const uses = shallowRef<Schemas['SauceUse'][]>()

  async function load() {
    void loadExamples().catch(() => undefined) // who writes a pot while the program is away knows them from before
    try {
      there.value = (await got(api.GET('/sauces'))).items
      trouble.value = undefined
    } catch (e) {
      trouble.value = said(e)
    }
  }
  const examples = shallowRef<Sauce[]>()
  const kinds = shallowRef<Schemas['SauceChoice'][]>([])
  /** Worked examples, and the kinds with what is asked of each; asked for once. */
  async function loadExamples() {
    if (examples.value) return
    const shown = await got(api.GET('/sauce-examples'))
    examples.value = shown.items
    kinds.value = shown.kinds
  }
  /** What was read of a pot is kept by the tablet that read it, also over a reload. */
  const nameOf = (of: string) => `ladle.pot.${of}`
  async function open(of: string) {
    const listed = list.value?.find((s) => s.id === of)
    if (!listed) return
    question.clear()
    uses.value = wrong.value = undefined
    const draft = drafts.of(of)
    kept.show(draft ? { ...listed, revision: draft.revision } : listed, draft?.doc)
    reading.value = keptAs<Reading>(nameOf(of))
    if (draft) kept.touched()
    await Promise.all([work(), loadUses()])
  }
  const work = async () => !!(await question.now())
  /** A reading that cannot be is forgotten and told; the pot is worked out without it. */
  function withoutReading(e: unknown, sauce: Sauce) {
    const said = e instanceof Refusal ? Object.entries(e.fields).find(([k]) => k.startsWith('now'))?.[1] : undefined
    if (!said) throw e
    read(undefined)
    wrong.value = said
    return ask('/sauce', { sauce })
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
    wrong.value = undefined
    read(now)
    return work()
  }
  function change(patch: Partial<Sauce>) {
    kept.change((d) => {
      Object.assign(d, copyOf(patch))
      for (const k of Object.keys(patch) as (keyof Sauce)[]) if (patch[k] === undefined) delete d[k]
    })
  }
  /** A whole sauce from the editor; the sentence at its field when it cannot be made. */
  async function keep(document: Sauce): Promise<Record<string, string> | undefined> {
    try {
      await ask('/sauce', { sauce: document })
    } catch (e) {
      return faultsOf(e)
    }
    kept.change((d) => {
      for (const k of Object.keys(d) as (keyof Sauce)[]) delete d[k]
      Object.assign(d, copyOf(document))
    })
    await kept.save()
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
    kept.clear()
    question.clear()
    return async () => {
      if ((await bringBack(path(of), what)).landed) await load()
      await open(of)
    }
  }
  useCatchUp(trouble, load)
  onLanded(async (l) => {
    if (!l.path.startsWith('/sauces')) return
    await load()
    const now = there.value?.find((s) => s.id === id.value)
    if (now) {
      revision.value = now.revision
      if (saveState.value === 'offline') saveState.value = 'saved'
    }
    await loadUses()
  })
  return {
    examples,
    kinds,
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
    wrong: question.trouble,
    saveState,
    saveTrouble,
    conflict,
    settle: kept.settle,
    canUndo: kept.canUndo,
    undo: kept.undo,
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
