import { useEventSource, useIntervalFn } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { newKey, Refusal, said, signedOut } from '@/api/client'
import { keptAs } from '@/away/drafts'
import { deliver, letters, onLanded } from '@/away/outbox'

const againMs = 3000

/** Something that happens on several tablets at once: the program folds its events, and streams how it stands. */
interface LiveNow {
  id: string
  now: string
  state: { events: number; last?: { event: string; text: string } }
}
interface LiveEvent {
  id: string
  kind: string
  undoes?: string
}
interface LiveOptions<N> {
  name: 'batch' | 'board' // of its events in the stream
  folder: '/batches' | '/boards'
  keptAs: string // on this tablet, for when the program is away after a reload
  title: (now: N) => string
  get: (id: string) => Promise<N>
}

function keepSeen(prefix: string, now: LiveNow) {
  try {
    for (const k of Object.keys(localStorage)) if (k.startsWith(prefix) && k !== prefix + now.id) localStorage.removeItem(k)
    localStorage.setItem(prefix + now.id, JSON.stringify(now))
  } catch {
    // No room: then a reload needs the program.
  }
}

export function useLive<N extends LiveNow, E extends LiveEvent>(o: LiveOptions<N>) {
  type Told = Omit<E, 'id'>
  const pathOf = (id: string) => `${o.folder}/${id}/events`
  const id = ref<string>()
  const now = shallowRef<N>()
  const trouble = ref('')
  const gone = ref(false)
  const skewMs = ref(0) // the program's clock less this tablet's
  const nowMs = ref(Date.now())
  useIntervalFn(() => (nowMs.value = Date.now() + skewMs.value), 250)

  const url = computed(() => (id.value && !gone.value ? `/api/v1${pathOf(id.value)}` : undefined))
  const stream = useEventSource(url, [o.name])
  const away = computed(() => !!now.value && stream.status.value !== 'OPEN')
  watch(stream.data, (data) => data && take(JSON.parse(data) as N))
  watch(signedOut, (out) => {
    if (!out) stream.open()
  })

  // A stream that was refused is closed for good: whether it is still there is asked, and the stream opened again.
  useIntervalFn(() => {
    if (!id.value || gone.value || signedOut.value || stream.eventSource.value?.readyState !== EventSource.CLOSED) return
    void open(id.value).then(() => !gone.value && !trouble.value && stream.open())
  }, againMs)

  function take(n: N) {
    const had = now.value
    if (n.id !== id.value || (had?.id === n.id && (n.state.events < had.state.events || (n.state.events === had.state.events && n.now < had.now))))
      return
    now.value = n
    trouble.value = ''
    skewMs.value = new Date(n.now).getTime() - Date.now()
    nowMs.value = Date.now() + skewMs.value
    keepSeen(o.keptAs, n)
  }

  async function open(which: string) {
    if (id.value !== which) {
      id.value = which
      now.value = keptAs<N>(o.keptAs + which)
    }
    gone.value = false
    trouble.value = ''
    try {
      take(await o.get(which))
    } catch (e) {
      gone.value = e instanceof Refusal && e.status === 404
      if (gone.value) now.value = undefined
      if (!now.value || !(e instanceof Refusal && e.passes)) trouble.value = said(e)
    }
  }
  function close() {
    id.value = now.value = undefined
  }

  /** What was told here and has not reached the program. */
  const waiting = computed(() => letters.value.filter((l) => id.value && l.path === pathOf(id.value)).map((l) => l.body as E))
  const undone = computed(() => new Set(waiting.value.flatMap((e) => e.undoes ?? [])))

  /**
   * Tells what happened. While the program is away it waits on this tablet and lands by itself. What is refused is
   * said on the page, or returned for the field that it stands in.
   */
  async function tell(event: Told, what: string, inField = false): Promise<string> {
    const n = now.value
    if (!n) return ''
    trouble.value = ''
    const body = { ...event, id: newKey() } as unknown as E
    try {
      const done = await deliver<N>({ what: `${o.title(n)}: ${what}`, method: 'POST', path: pathOf(n.id), body, key: body.id })
      if (done.landed) take(done.answer)
    } catch (e) {
      if (inField) return said(e)
      trouble.value = said(e)
    }
    return ''
  }
  onLanded((l, answer) => {
    if (id.value && l.path === pathOf(id.value)) take(answer as N)
  })

  /** What was done last: here, while the program is away, or by anybody. */
  const last = computed(() => {
    const here = waiting.value.filter((e) => e.kind !== 'took_back' && !undone.value.has(e.id)).at(-1)
    const there = now.value?.state.last
    return here ? { event: here.id, text: 'what waits on this tablet' } : there && !undone.value.has(there.event) ? there : undefined
  })
  const takeBack = () => {
    if (last.value) void tell({ kind: 'took_back', undoes: last.value.event } as unknown as Told, `taken back: ${last.value.text}`)
  }
  return { id, now, trouble, gone, away, nowMs, waiting, undone, last, open, close, tell, takeBack }
}
