import { useEventSource, useIntervalFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, got, newKey, Refusal, said, signedOut, type Schemas } from '@/api/client'
import { deliver, letters, onLanded } from '@/away/outbox'

export type BatchNow = Schemas['BatchNow']
export type TaskNow = Schemas['TaskNow']
export type BatchEvent = Omit<Schemas['BatchEvent'], 'id' | 'at' | 'took' | 'knew'>

const prefix = 'ladle.sheet.'
const againMs = 3000
const pathOf = (id: string) => `/batches/${id}/events`

/** What the tablet last saw of a batch, for when the program is away after a reload. */
function lastSeen(id: string): BatchNow | undefined {
  try {
    return JSON.parse(localStorage.getItem(prefix + id) ?? 'null') ?? undefined
  } catch {
    return undefined // not ours
  }
}
function keepSeen(b: BatchNow) {
  try {
    for (const k of Object.keys(localStorage)) if (k.startsWith(prefix) && k !== prefix + b.id) localStorage.removeItem(k)
    localStorage.setItem(prefix + b.id, JSON.stringify(b))
  } catch {
    // No room: then a reload needs the program.
  }
}

/** The bowl that is being made: what the program says of it, live, and what this tablet tells. */
export const useSheet = defineStore('sheet', () => {
  const id = ref<string>()
  const batch = shallowRef<BatchNow>()
  const trouble = ref('')
  const gone = ref(false)
  const skewMs = ref(0) // the program's clock less this tablet's
  const nowMs = ref(Date.now())
  useIntervalFn(() => (nowMs.value = Date.now() + skewMs.value), 250)

  const url = computed(() => (id.value && !gone.value ? `/api/v1${pathOf(id.value)}` : undefined))
  const stream = useEventSource(url, ['batch'] as const)
  const away = computed(() => !!batch.value && stream.status.value !== 'OPEN')
  watch(stream.data, (data) => data && take(JSON.parse(data) as BatchNow))
  watch(signedOut, (out) => {
    if (!out) stream.open()
  })

  // A stream that was refused is closed for good: whether the sheet is still there is asked, and the stream opened again.
  useIntervalFn(() => {
    if (!id.value || gone.value || signedOut.value || stream.eventSource.value?.readyState !== EventSource.CLOSED) return
    void open(id.value).then(() => !gone.value && !trouble.value && stream.open())
  }, againMs)

  function take(b: BatchNow) {
    if (b.id !== id.value || (batch.value?.id === b.id && b.state.events < batch.value.state.events)) return
    batch.value = b
    trouble.value = ''
    skewMs.value = new Date(b.now).getTime() - Date.now()
    keepSeen(b)
  }

  async function open(which: string) {
    if (id.value !== which) {
      id.value = which
      batch.value = lastSeen(which)
      picked.value = undefined
    }
    gone.value = false
    trouble.value = ''
    try {
      take(await got(api.GET('/batches/{id}', { params: { path: { id: which } } })))
    } catch (e) {
      gone.value = e instanceof Refusal && e.status === 404
      if (gone.value) batch.value = undefined
      if (!batch.value || !(e instanceof Refusal && e.passes)) trouble.value = said(e)
    }
  }
  function close() {
    id.value = batch.value = undefined
  }

  /** What was told here and has not reached the program. */
  const waiting = computed(() => letters.value.filter((l) => id.value && l.path === pathOf(id.value)).map((l) => l.body as Schemas['BatchEvent']))
  const undone = computed(() => new Set(waiting.value.flatMap((e) => e.undoes ?? [])))
  const isWaiting = (task: string) => waiting.value.some((e) => e.task === task && e.kind !== 'took_back' && !undone.value.has(e.id))

  /** The task that this tablet looks at: the next one, or another that was tapped. */
  const picked = ref<string>()
  const tasks = computed(() => batch.value?.state.tasks ?? [])
  const stillOpen = (t: TaskNow) => (t.at === 'to_come' || t.at === 'top_up') && !isWaiting(t.id)
  const current = computed(() => {
    const chosen = tasks.value.find((t) => t.id === picked.value)
    if (chosen && stillOpen(chosen)) return chosen
    return tasks.value.find(stillOpen)
  })
  const next = computed(() => {
    const from = tasks.value.findIndex((t) => t.id === current.value?.id)
    return tasks.value.slice(from + 1).find(stillOpen) ?? tasks.value.slice(0, Math.max(0, from)).find(stillOpen)
  })

  /**
   * Tells what happened. While the program is away it waits on this tablet and lands by itself. What is refused is
   * said on the sheet, or returned for the field that it stands in.
   */
  async function tell(event: BatchEvent, what: string, inField = false): Promise<string> {
    const b = batch.value
    if (!b) return ''
    trouble.value = ''
    picked.value = undefined
    const body: Schemas['BatchEvent'] = { ...event, id: newKey(), knew: b.state.events }
    try {
      const done = await deliver<BatchNow>({ what: `${b.plan.name}: ${what}`, method: 'POST', path: pathOf(b.id), body, key: body.id })
      if (done.landed) take(done.answer)
    } catch (e) {
      if (inField) return said(e)
      trouble.value = said(e)
    }
    return ''
  }
  onLanded((l, answer) => {
    if (id.value && l.path === pathOf(id.value)) take(answer as BatchNow)
  })

  /** What was done last: here, while the program is away, or by anybody. */
  const last = computed(() => {
    const here = waiting.value.filter((e) => e.kind !== 'took_back' && !undone.value.has(e.id)).at(-1)
    const there = batch.value?.state.last
    return here ? { event: here.id, text: 'what waits on this tablet' } : there && !undone.value.has(there.event) ? there : undefined
  })
  const takeBack = () => {
    if (last.value) void tell({ kind: 'took_back', undoes: last.value.event }, `taken back: ${last.value.text}`)
  }
  return { id, batch, trouble, gone, away, nowMs, waiting, isWaiting, picked, tasks, current, next, last, stillOpen, open, close, tell, takeBack }
})
