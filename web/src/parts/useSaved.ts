import { useDebounceFn, useEventListener, useManualRefHistory } from '@vueuse/core'
import { ref, shallowRef, type Ref } from 'vue'
import { faultsOf, Refusal, said } from '@/api/client'
import type { Delivered } from '@/away/outbox'
import { nothingBack } from './takeBack'

export type SaveState = 'saved' | 'changed' | 'saving' | 'offline' | 'refused' | 'conflict'

/** A document as the program keeps it. */
export interface Kept<D> {
  id: string
  revision: number
  document: D
}
/** Both sides of a save over what another tablet saved meanwhile. */
export interface BothSides<D> {
  current: Kept<D>
  yours: D
}
/** Work that was not sent yet, and what it was made from. */
export interface Draft<D> {
  revision: number
  doc: D
}

export interface SavedOptions<D, K extends Kept<D> = Kept<D>> {
  /** Sends it over a revision; what did not land waits, or has to be sent again from here. A refusal is thrown. */
  send: (id: string, doc: D, revision: number) => Promise<Delivered<K> & { again?: boolean }>
  /** It was changed here. Whoever answers “wait” has it saved, by saveSoon, once it is known that it can be used. */
  changed?: () => void | 'wait'
  /** Takes one up, with work on it, when a conflict ends; the document is what is shown where nothing is said. */
  shows?: (kept: K, draft?: D) => void
  /** It landed. */
  saved?: (kept: K) => void
  /** Keeps work on this tablet, should the tab be closed. */
  drafts?: { keep: (id: string, draft: Draft<D>) => void; drop: (id: string) => void }
  saveAfterMs?: number // of quiet
  draftAfterMs?: number // of quiet
  stepAfterMs?: number // of quiet: one undo step for one drag
  retryAfterMs?: number // before what did not land is sent again from here
  undoSteps?: number
}

export const copyOf = <T>(v: T): T => (v === undefined ? v : (JSON.parse(JSON.stringify(v)) as T))

/**
 * A document that is worked on and kept by the program: saved a moment after each change, one save at a time and the
 * newest next, over the revision that it was made from. What another tablet saved meanwhile is never written over: both
 * sides are shown. What does not reach the program stays here. Every change can be undone.
 */
export function useSaved<D extends object, K extends Kept<D> = Kept<D>>(o: SavedOptions<D, K>) {
  const { saveAfterMs = 600, draftAfterMs = 150, stepAfterMs = 400, retryAfterMs = 4000, undoSteps = 200 } = o
  const id = ref<string>()
  const revision = ref(0)
  const doc = ref() as Ref<D | undefined>
  const saveState = ref<SaveState>('saved')
  const saveTrouble = ref<string>()
  const faults = ref<Record<string, string>>({}) // sentence by JSON Pointer, without its first slash
  const conflict = shallowRef<BothSides<D>>()

  const history = useManualRefHistory(doc, { clone: copyOf, capacity: undoSteps })
  let pendingStep = false
  function step() {
    if (pendingStep) history.commit()
    pendingStep = false
  }
  const stepSoon = useDebounceFn(step, stepAfterMs)

  let refusal: unknown
  let saving: Promise<void> | undefined
  async function save(): Promise<void> {
    if (saving) await saving
    if (saveState.value !== 'changed' && saveState.value !== 'offline') return
    saving = send().finally(() => (saving = undefined))
    return saving
  }
  async function send() {
    if (!doc.value || !id.value) return
    const sent = JSON.stringify(doc.value)
    const to = id.value
    saveState.value = 'saving'
    refusal = undefined
    try {
      const done = await o.send(to, doc.value, revision.value)
      if (id.value !== to) return
      if (!done.landed) {
        writeDraft()
        saveState.value = 'offline'
        if (done.again) setTimeout(() => void save(), retryAfterMs)
        return
      }
      revision.value = done.answer.revision
      saveState.value = JSON.stringify(doc.value) === sent ? 'saved' : 'changed'
      saveTrouble.value = undefined
      faults.value = {}
      if (saveState.value === 'saved') o.drafts?.drop(to)
      else void saveSoon()
      o.saved?.(done.answer)
    } catch (e) {
      if (id.value !== to) return
      if (e instanceof Refusal && e.status === 409) {
        conflict.value = e.problem as unknown as BothSides<D>
        saveState.value = 'conflict'
      } else {
        refusal = e
        saveState.value = 'refused'
        saveTrouble.value = said(e)
        faults.value = faultsOf(e)
      }
    }
  }
  const saveSoon = useDebounceFn(() => save(), saveAfterMs)

  function writeDraft() {
    if (id.value && doc.value && saveState.value !== 'saved') o.drafts?.keep(id.value, { revision: revision.value, doc: doc.value })
  }
  const draftSoon = useDebounceFn(writeDraft, draftAfterMs)

  /** Everything that changes the document goes through here. */
  function change(f: (d: D) => void) {
    if (!doc.value) return
    f(doc.value)
    edited()
  }
  /** It was changed by whoever holds it: the fields of a form. */
  function edited() {
    pendingStep = true
    nothingBack()
    void stepSoon()
    touched()
  }
  function touched() {
    if (!id.value || !doc.value) return
    void draftSoon()
    if (saveState.value !== 'conflict') saveState.value = 'changed'
    if (o.changed?.() !== 'wait') void saveSoon()
  }
  function undo() {
    step()
    history.undo()
    touched()
  }
  function redo() {
    history.redo()
    touched()
  }

  /** Saves at once what a form holds, and says what came of it; a refusal is thrown, for the form's fields. */
  async function keep(kept: Kept<D>, document = kept.document): Promise<SaveState> {
    show(kept)
    doc.value = copyOf(document)
    saveState.value = 'changed'
    await save()
    if (refusal) throw refusal
    return saveState.value
  }

  /** Takes one up as the program keeps it, or as a draft of it stands. */
  function show(kept: Kept<D>, draft?: D) {
    id.value = kept.id
    revision.value = kept.revision
    doc.value = copyOf(draft ?? kept.document)
    history.clear()
    history.commit()
    history.clear()
    pendingStep = false
    saveState.value = 'saved'
    saveTrouble.value = undefined
    faults.value = {}
    conflict.value = undefined
  }
  function clear() {
    id.value = doc.value = conflict.value = undefined
    saveState.value = 'saved'
  }

  /** Ends a conflict with one of the two sides; the other stays among the earlier states. */
  function settle(keep: 'mine' | 'theirs') {
    const c = conflict.value
    if (!c || !doc.value) return
    const mine = copyOf(doc.value)
    if (keep === 'theirs' && id.value) o.drafts?.drop(id.value)
    const draft = keep === 'mine' ? mine : undefined
    if (o.shows) return o.shows(c.current as K, draft)
    show(c.current, draft)
    if (draft) touched()
  }

  useEventListener(window, 'online', () => void save())
  useEventListener(window, 'pagehide', () => {
    writeDraft()
    void save()
  })

  return {
    id,
    revision,
    doc,
    saveState,
    saveTrouble,
    faults,
    conflict,
    canUndo: history.canUndo,
    canRedo: history.canRedo,
    change,
    edited,
    touched,
    keep,
    undo,
    redo,
    show,
    clear,
    save,
    saveSoon,
    settle,
    writeDraft,
  }
}
