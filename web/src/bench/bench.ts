import { drafts, isLocal, landedAs, keepLast, keyOf, lastSeen, localId, noteLanded, lookElsewhere, sendElsewhere } from '@/away/drafts'
import { bringBack as putBack, deliver, flush, letters, onLanded, putAside, waitingFor } from '@/away/outbox'
import { useCatchUp } from '@/parts/catchUp'
import { unitsShown } from '@/parts/settings'
import { ask } from '@/parts/ask'
import { useAsked } from '@/parts/useAsked'
import { useUnnamed } from './unnamed'
import { copyOf as copy, useSaved } from '@/parts/useSaved'
import { useDebounceFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import {
  api,
  got,
  newKey,
  Refusal,
  said,
  unreachable,
  type Addition,
  type Ingredient,
  type ListItem,
  type Saved,
  type Schemas,
  type Variation,
  type Worksheet,
} from '@/api/client'

const seenAfterMs = 500 // of quiet

const pathOf = (id: string) => `/variations/${id}`

/** The variation on the bench: the document, what the program makes of it, and its saving. */
export const useBench = defineStore('bench', () => {
  const kept = useSaved<Variation, Saved>({
    send: async (to, document, over) => {
      if (isLocal(to)) return { landed: false } // its letter lands first
      try {
        const params = { path: { id: to }, header: { 'If-Match': `"${over}"` } }
        return { landed: true, answer: await got(api.PUT('/variations/{id}', { params, body: document })) }
      } catch (e) {
        if (e instanceof Refusal && e.passes) return { landed: false, again: true }
        throw e
      }
    },
    changed: () => {
      plain.value = false
      void work()
    },
    shows: (theirs, draft) => show(theirs, draft),
    drafts,
  })
  const { id, revision, doc, saveState, saveTrouble, conflict, change, save, saveSoon, undo, redo, settle } = kept
  const sheet = shallowRef<Worksheet>()
  const there = shallowRef<ListItem[]>([]) // as the program lists them
  /** The list as it will be once everything has landed: begun ones on top, without what was put aside. */
  const list = computed(() => [
    ...letters.value.flatMap((l) => {
      if (l.path !== '/variations' || l.method !== 'POST') return []
      const { name, form } = (drafts.of(localId(l.key))?.doc ?? l.body) as Variation
      return [{ id: localId(l.key), name, form, revision: 0, updated_at: new Date().toISOString(), verdict: 'waits on this tablet' } as ListItem]
    }),
    ...there.value.filter((v) => waitingFor(pathOf(v.id))?.method !== 'DELETE'),
  ])
  const listTrouble = ref<string>()
  const loaded = ref(false)
  const missing = ref<string>() // why the address that was asked for shows something else
  const active = ref<string>() // the line in hand
  const unnamed = useUnnamed(() => list.value)
  const plain = ref(false) // the plain base is shown, for comparison
  const why = ref<{ line?: string; figure?: string }>() // whose working is open: a line's by its id, else a figure's by its key

  const swapping = ref<{ line: string; label: string }>() // the line that something is to stand in for
  watch(why, (now) => now && (swapping.value = undefined))
  watch(swapping, (now) => now && (why.value = undefined))

  const sheetLine = (lineId: string) => sheet.value?.lines.find((l) => l.id === lineId)
  const additions = computed(() => doc.value?.additions ?? [])
  const shelf = computed(() => additions.value.map((a) => ({ addition: a, line: sheetLine(a.id ?? '') })))
  const ledger = computed(() => sheet.value?.lines.filter((l) => l.from === 'base') ?? [])
  const order = computed(() => [...additions.value.map((a) => a.id ?? ''), ...ledger.value.map((l) => l.id)])

  /** What is shown all the time, and what a dialog or a list that is open shows; nobody else pays for that. */
  const included = new Set<string>(['drawing'])
  function include(what: 'working' | 'strategies' | 'choices' | 'nutrition', wanted: boolean) {
    if (wanted === included.has(what)) return
    if (!wanted) included.delete(what)
    else {
      included.add(what)
      void work()
    }
  }
  watch(why, (figure) => include('working', !!figure))
  /** Ladles and scoops with what each would give, as it was when the list was last open. */
  const ladles = shallowRef<Schemas['PortionChoice'][]>()

  /** Steps and verdict come in cups while this tablet shows cups. */
  const inCups = () => (unitsShown.value === 'cups' ? ['cups'] : [])
  watch(unitsShown, () => void work())

  /** What is worked out: the variation, or its plain base. */
  const asked = () => (doc.value && plain.value ? { ...doc.value, additions: [], reference: undefined } : doc.value)

  let sheetOf: string | undefined // the variation that the sheet is of
  const figures = useAsked(
    async () => {
      const of = id.value
      const nameless = !!of && !plain.value && unnamed.has(of)
      const answer = await ask('/worksheets', asked()!, { include: [...included, nameless && 'name', !ladles.value && 'choices', ...inCups()] })
      sheet.value = answer
      if (of && of === id.value && answer.proposed_name) follows(of, answer.proposed_name)
      ladles.value = answer.portion.choices ?? ladles.value
      sheetOf = of
      void seen()
    },
    { meanwhile: 'next' }, // a drag shows figures all the way
  )
  const { asking: working } = figures
  /** Why there are no fresh figures. */
  const trouble = computed({ get: () => figures.trouble.value ?? Object.values(figures.faults.value)[0], set: (to) => (figures.trouble.value = to) })
  const work = async () => void (doc.value && (await figures.now()))
  watch([trouble, id], ([t]) => {
    if (t && sheetOf !== id.value) sheet.value = undefined // another's figures are no figures
  })
  watch(trouble, (t, was) => was === unreachable && !t && void follow())

  function togglePlain() {
    plain.value = !plain.value
    void work()
  }

  function show(s: Saved, draft?: Variation) {
    plain.value = false
    why.value = swapping.value = ladles.value = undefined
    kept.show({ ...s, document: withIds(copy(s.document)) }, draft && withIds(copy(draft)))
    active.value = doc.value?.additions?.[0]?.id
    localStorage.setItem('ladle.open', s.id)
    lookElsewhere(s.id)
    if (draft) kept.touched()
    else void work()
  }

  async function open(variationId: string): Promise<void> {
    if (saveState.value === 'changed') await save()
    const draft = drafts.of(variationId)
    if (isLocal(variationId)) return openLocal(variationId, draft?.doc)
    let data: Saved
    try {
      data = await got(api.GET('/variations/{id}', { params: { path: { id: variationId } } }))
    } catch (e) {
      if (e instanceof Refusal && e.status === 0 && openLast(variationId, draft?.doc)) return
      throw e
    }
    // A draft that rests on an older revision meets the other tablet's work as a conflict.
    show(draft ? { ...data, revision: draft.revision } : data, draft?.doc)
  }

  /** One that was begun while the program was away, and has not landed. */
  function openLocal(variationId: string, draft?: Variation) {
    const begun = letters.value.find((l) => l.key === keyOf(variationId))?.body as Variation | undefined
    const now = landedAs(variationId)
    if (!begun && now) return open(now)
    if (!begun && !draft) throw new Error('It has landed meanwhile. Choose it from the list.')
    show({ id: variationId, revision: 0, updated_at: '', document: (draft ?? begun)! })
    saveState.value = 'offline'
  }

  /** What was on the bench when the program was last there, with the figures of then. */
  function openLast(variationId: string, draft?: Variation) {
    const last = lastSeen<Worksheet>()
    if (last?.id !== variationId) return false
    sheet.value = last.sheet
    sheetOf = last.id
    show({ id: last.id, revision: last.revision, updated_at: '', document: last.doc }, draft)
    return true
  }
  /** Kept on this tablet with its figures, a moment after the last of them. */
  const seen = useDebounceFn(() => {
    if (id.value && doc.value && sheetOf === id.value && !plain.value)
      keepLast({ id: id.value, revision: revision.value, doc: doc.value, sheet: sheet.value })
  }, seenAfterMs)

  /** Another tablet may have saved while the program was away; what was not touched here follows it. */
  async function follow() {
    const at = id.value
    if (!at || isLocal(at) || saveState.value !== 'saved') return
    const now = await got(api.GET('/variations/{id}', { params: { path: { id: at } } }))
    if (id.value === at && saveState.value === 'saved' && now.revision !== revision.value) show(now)
  }

  onLanded((l, answer) => {
    if (l.path === '/variations' && l.method === 'POST') landed(localId(l.key), answer as Saved)
    void sendElsewhere(id.value)
    void refreshList()
  })
  /** One that was begun while the program was away is the kitchen's now; what was changed since follows. */
  function landed(local: string, now: Saved) {
    const draft = drafts.of(local)
    noteLanded(local, now.id)
    unnamed.moved(local, now.id)
    if (id.value === local && doc.value) {
      id.value = now.id
      revision.value = now.revision
      localStorage.setItem('ladle.open', now.id)
      saveState.value = 'changed' // the same again is no new state
      void saveSoon()
      void work()
    } else if (draft) drafts.keep(now.id, { revision: now.revision, doc: draft.doc })
    drafts.drop(local)
  }

  /** It landed from another tab of this tablet. */
  watch(letters, (waiting) => {
    const local = id.value
    if (!local || !isLocal(local) || waiting.some((l) => l.key === keyOf(local))) return
    const now = landedAs(local)
    if (now) void open(now)
  })

  async function refreshList() {
    try {
      const all: ListItem[] = []
      let after: string | undefined
      do {
        const page = await got(api.GET('/variations', { params: { query: { limit: 200, after } } }))
        all.push(...page.items)
        after = page.next
      } while (after)
      there.value = all
      listTrouble.value = undefined
    } catch (e) {
      listTrouble.value = said(e)
    }
  }

  /** The first look: what the address asks for, else what was open last, else what changed last. */
  async function start(wanted?: string) {
    await refreshList()
    void flush()
    const last = localStorage.getItem('ladle.open')
    void sendElsewhere(wanted ?? last ?? undefined)
    const first = list.value.find((v) => v.id === last) ?? list.value[0]
    for (const one of [wanted, first?.id ?? (listTrouble.value ? last : undefined)]) {
      if (!one) continue
      try {
        await open(one)
        break
      } catch (e) {
        if (one === wanted) missing.value = said(e)
        else listTrouble.value = said(e)
      }
    }
    loaded.value = true
  }

  /** As long as nobody has named it, it is called as the program proposes; the change before it is undone together with its name. */
  function follows(variationId: string, proposed: string) {
    if (!doc.value || !unnamed.has(variationId)) return
    const name = unnamed.free(proposed, variationId)
    if (unnamed.calls(doc.value.name, proposed) || doc.value.name === name) return
    doc.value.name = name
    kept.touched()
  }
  /** The cook's own name for it. */
  function rename(name: string) {
    if (id.value) unnamed.drop(id.value)
    change((d) => (d.name = name))
  }

  /** A new one on a base opens at once, and is called by what goes into it until the cook names it. */
  async function begin(base: { id: string; revision: number; document: Schemas['Base'] }) {
    const { name, form, style, school, lines, source_note, source_text, parts } = base.document
    await create({
      format: 'upbeat-ladle/variation',
      version: 1,
      name: unnamed.free(name),
      form,
      parts,
      base: { name, style, school, lines, source_note, source_text, base_ref: { id: base.id, revision: base.revision } },
    })
    if (id.value) unnamed.add(id.value)
  }

  async function create(document: Variation) {
    const key = newKey()
    const sent = await deliver<Saved>({ key, what: `“${document.name}”, new`, method: 'POST', path: '/variations', body: document })
    if (sent.landed) show(sent.answer)
    else openLocal(localId(key))
    await refreshList()
  }

  let lastRecipe = { asked: '', key: '' }
  /**
   * Keeps a recipe as it was read. Pots that it brings along become sauces of the house in the same breath, and go with it
   * when it is undone.
   */
  async function createRecipe(document: Variation) {
    if (!document.parts?.some((p) => p.sauce && !p.sauce_ref)) {
      await create(document)
      return { sauces: [], undo: async () => {} }
    }
    const asked = JSON.stringify(document)
    if (lastRecipe.asked !== asked) lastRecipe = { asked, key: newKey() } // sent again after an error it is the same one
    const made = await got(api.POST('/recipes', { params: { header: { 'Idempotency-Key': lastRecipe.key } }, body: document }))
    lastRecipe = { asked: '', key: '' }
    show(made.variation)
    await refreshList()
    const path = { id: made.variation.id }
    return {
      sauces: made.sauces.map((s) => s.document.name),
      undo: async () => {
        await got(api.DELETE('/recipes/{id}', { params: { path } }))
        await gone(path.id)
      },
    }
  }

  async function duplicate(variationId: string) {
    const document =
      variationId === id.value && doc.value
        ? copy(doc.value)
        : (await got(api.GET('/variations/{id}', { params: { path: { id: variationId } } }))).document
    await create({ ...document, name: `${document.name}, copy` })
  }

  /** Asks for the batch in another size. The answer is what was rounded on the way. */
  async function scale(wish: Omit<Schemas['ScaleWish'], 'variation'>) {
    if (!doc.value) return []
    const scaled = await ask('/scalings', { variation: doc.value, ...wish })
    change((d) => Object.assign(d, copy(scaled.variation)))
    return scaled.said
  }

  /** A batch for a number of portions is written out before an amount of it changes. */
  const counted = computed(() => doc.value?.portion?.count !== undefined)
  let writing: Promise<unknown> | undefined
  function whenWritten(f: () => void) {
    if (!counted.value && !writing) return f()
    writing ??= scale({ settle: true }).finally(() => (writing = undefined))
    void writing.then(f).catch((e: unknown) => (trouble.value = said(e)))
  }

  /** What can stand in for a line of the base, as the bowl is now. */
  const swapsFor = async (lineId: string) => (await ask('/swaps', { variation: doc.value!, line: lineId })).items

  /** Lets something else stand in for a line; the base that targets are held to stays. */
  function swap(lineId: string, label: string) {
    whenWritten(() => void putInPlace(lineId, label).catch((e: unknown) => (trouble.value = said(e))))
  }
  async function putInPlace(lineId: string, label: string) {
    const found = (await swapsFor(lineId)).find((s) => s.label === label)
    if (found) change((d) => (d.base = copy(found.base)))
  }

  /** The base's own lines again, all of them, in one step. */
  function ownLines() {
    change((d) => {
      if (!d.base.own_lines) return
      d.base.lines = d.base.own_lines
      delete d.base.own_lines
    })
  }

  /** Puts a whole earlier document on the bench, as one step that can be undone. */
  function bringBack(document: Variation) {
    change((d) => {
      for (const k of Object.keys(d) as (keyof Variation)[]) delete d[k]
      Object.assign(d, withIds(copy(document)))
    })
  }

  /** Puts a variation aside; the answer brings it back. */
  /** One that is aside leaves the bench to the next. */
  async function gone(variationId: string) {
    if (id.value === variationId) {
      kept.clear()
      sheet.value = undefined
    }
    await refreshList()
    if (!id.value && list.value[0]) await open(list.value[0].id).catch((e: unknown) => (listTrouble.value = said(e)))
  }

  async function remove(variationId: string) {
    const what = `“${list.value.find((v) => v.id === variationId)?.name ?? doc.value?.name ?? ''}”`
    await putAside(pathOf(variationId), what)
    await gone(variationId)
    return async () => {
      await putBack(pathOf(variationId), what)
      await refreshList()
      await open(variationId)
    }
  }

  /** What targets are taken from: the plain base, or the recipe as it stands in the bowl now. */
  function holdTo(kind: 'plain' | 'as_written') {
    change((d) => {
      if (kind === 'plain') delete d.reference
      else d.reference = { kind, additions: copy(d.additions ?? []) }
    })
  }

  /** Another thing in the place of an addition, as much of it, at its own stage. */
  function replace(lineId: string, ingredient: Ingredient) {
    whenWritten(() =>
      change((d) => {
        const a = d.additions?.find((x) => x.id === lineId)
        if (!a) return
        const grams = a.unit === 'g' ? a.amount : (sheetLine(lineId)?.weigh_g ?? a.amount)
        Object.assign(a, { ingredient: ingredient.id, amount: grams, unit: 'g', stage: ingredient.usual_stage })
        for (const k of ['prep', 'measured', 'placed_per_portion', 'role', 'as_read'] as const) delete a[k]
      }),
    )
  }

  function add(ingredient: Ingredient) {
    whenWritten(() => putIn(ingredient))
  }
  function putIn(ingredient: Ingredient) {
    const taken = new Set(order.value)
    let n = additions.value.length + 1
    while (taken.has(`a${n}`)) n++
    change((d) => {
      d.additions = [
        ...(d.additions ?? []),
        {
          id: `a${n}`,
          ingredient: ingredient.id,
          amount: ingredient.dose.usual_g,
          unit: 'g',
          stage: ingredient.usual_stage,
        },
      ]
    })
    active.value = `a${n}`
  }

  function changeAddition(lineId: string, patch: Partial<Addition>) {
    const apply = () =>
      change((d) => {
        const a = d.additions?.find((x) => x.id === lineId)
        if (a) Object.assign(a, patch)
      })
    if ('amount' in patch || 'unit' in patch || 'measured' in patch) whenWritten(apply)
    else apply()
  }

  /** When it goes in; laid on the portions, as much of it is proposed as goes evenly. */
  async function changeStage(lineId: string, stage: Schemas['Stage']) {
    const laid = stage === 'on_portion' || stage === 'under_portion'
    const was = doc.value?.additions?.find((a) => a.id === lineId)?.stage
    changeAddition(lineId, { stage })
    if (!laid || was === 'on_portion' || was === 'under_portion' || !doc.value) return
    try {
      const { amount_g } = await ask('/loads', { variation: doc.value, line: lineId, fitting: true })
      changeAddition(lineId, { amount: amount_g, unit: 'g' })
      return amount_g
    } catch {
      return // what has no pieces stays as much as it was
    }
  }

  function takeOut(lineId: string) {
    change((d) => (d.additions = d.additions?.filter((a) => a.id !== lineId)))
    if (active.value === lineId) active.value = additions.value[0]?.id
  }

  /** Steps the addition in hand by the step that the program names, never below nothing. */
  function step(lineId: string, steps: number) {
    const line = sheetLine(lineId)
    if (!line?.dose) return
    const g = doc.value?.additions?.find((a) => a.id === lineId)
    const from = g?.unit === 'g' && !counted.value ? g.amount : line.rounded_from_g
    const next = Math.max(0, from + steps * line.dose.step_g)
    changeAddition(lineId, { amount: Number(next.toFixed(6)), unit: 'g' }) // six decimals: 0.1 + 0.2 is 0.3
  }

  function togglePin(lineId: string) {
    change((d) => {
      const i = ledger.value.findIndex((l) => l.id === lineId)
      const line = d.base.lines[i]
      if (!line) return
      if (line.locked) delete line.locked
      else line.locked = true
    })
  }

  /** What a recipe's words were only taken for is it. */
  function isIt(lineId: string) {
    change((d) => {
      for (const l of [...d.base.lines, ...(d.base.own_lines ?? []), ...(d.additions ?? []), ...(d.reference?.additions ?? [])])
        if (l.id === lineId) delete l.as_read
    })
  }

  /** Pulls a gauge to where the cook wants it; without a figure it goes back to the base. */
  function pull(p: Schemas['Pull'], to?: number) {
    change((d) => {
      const targets = { ...d.offset?.targets }
      if (to === undefined || Math.abs(to - p.rest) < p.step / 100) delete targets[p.hold]
      else targets[p.hold] = Number(Math.min(p.high, Math.max(p.low, to)).toFixed(6))
      d.offset = { ...d.offset, targets }
      if (!Object.keys(targets).length) delete d.offset.targets
      if (!Object.keys(d.offset).length) delete d.offset
    })
  }

  /** Pulls it on by steps from where it stands now; the sheet may still be on its way. */
  function pullOn(p: Schemas['Pull'], steps: number) {
    pull(p, (doc.value?.offset?.targets?.[p.hold] ?? p.rest) + steps * p.step)
  }

  /** The ladles that forms had before they were turned into others, to be given back. */
  const ladlesOf = new Map<string, Variation['portion']>()
  /**
   * Makes another form of it. How wide one was spread, and one cake, belong to the form that it was; so does the ladle where an iron comes
   * or goes: a waffle takes what its iron takes, and the form before it gets its own ladle back.
   */
  function turnInto(form: Schemas['Form']) {
    change((d) => {
      const of = (f: Schemas['Form']) => `${id.value}/${f}`
      const kept = { ...d.portion }
      delete kept.spread
      delete kept.one_cake
      ladlesOf.set(of(d.form), d.portion && copy(d.portion))
      if ((form === 'waffle') !== (d.form === 'waffle')) d.portion = ladlesOf.get(of(form)) ?? {}
      else d.portion = kept
      d.form = form
      if (!Object.keys(d.portion).length) delete d.portion
    })
  }

  /** Spreads a portion to so many mm across; without a figure it is as form and thickness ask. */
  function spread(mm?: number) {
    change((d) => {
      d.portion = { ...d.portion, spread: { by: 'hand', to_mm: mm } }
      if (mm === undefined) delete d.portion.spread
      if (!Object.keys(d.portion).length) delete d.portion
    })
  }

  /** Stops holding one property. */
  function letGo(hold: Schemas['Hold']) {
    change((d) => (d.offset = { ...d.offset, hold: (d.offset?.hold ?? sheet.value?.held ?? []).filter((h) => h !== hold) }))
  }

  function move(by: number) {
    const all = order.value
    if (all.length === 0) return
    const at = all.indexOf(active.value ?? '')
    active.value = all[Math.min(all.length - 1, Math.max(0, at + by))]
  }

  useCatchUp(listTrouble, () => (doc.value ? refreshList() : start()))
  watch(saveState, (s) => s === 'saved' && void refreshList())

  return {
    id,
    revision,
    doc,
    sheet,
    trouble,
    working,
    saveState,
    saveTrouble,
    conflict,
    list,
    listTrouble,
    loaded,
    missing,
    active,
    plain,
    asked,
    inCups,
    why,
    swapping,
    shelf,
    ledger,
    canUndo: kept.canUndo,
    canRedo: kept.canRedo,
    include,
    ladles,
    start,
    open,
    refreshList,
    create,
    createRecipe,
    duplicate,
    scale,
    counted,
    holdTo,
    replace,
    swap,
    swapsFor,
    ownLines,
    bringBack,
    rename,
    begin,
    togglePlain,
    remove,
    settle,
    change,
    changeAddition,
    changeStage,
    add,
    takeOut,
    step,
    togglePin,
    isIt,
    pull,
    spread,
    turnInto,
    pullOn,
    letGo,
    move,
    undo,
    redo,
    work,
    save,
  }
})

/** Every line gets an id, so that a line keeps its place while others come and go. */
function withIds(d: Variation): Variation {
  d.base.lines.forEach((l, i) => (l.id ??= `b${i + 1}`))
  d.additions?.forEach((a, i) => (a.id ??= `a${i + 1}`))
  return d
}
