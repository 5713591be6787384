import { computed, shallowRef } from 'vue'
import { newKey, Refusal, said, sent } from '@/api/client'

/** A change of what the kitchen keeps, on its way to the program. Its key makes sending it twice the same as once. */
export interface Letter {
  key: string
  seq: number // in the order in which they were written
  what: string // for the cook
  method: 'POST' | 'PUT' | 'DELETE'
  path: string // under /api/v1
  body?: unknown
  revision?: number // that a PUT was made from
  written?: { page: number; ms: number; wall: number } // by the page's own clock and by the tablet's
  tried?: boolean // so that it may have arrived
  trouble?: string // why it did not land, when asking again does not help
  stale?: boolean // somebody else changed the same meanwhile
}
export type Wish = Omit<Letter, 'key' | 'seq' | 'written' | 'tried' | 'trouble' | 'stale'> & { key?: string }

const prefix = 'ladle.out.'
const againMs = 4000
const widthOfSeq = 12

/** One entry a letter, so that two tabs never write over each other's. */
const nameOf = (l: Letter) => `${prefix}${String(l.seq).padStart(widthOfSeq, '0')}.${l.key}`
function read(): Letter[] {
  const names = Object.keys(localStorage)
    .filter((k) => k.startsWith(prefix))
    .sort()
  return names.flatMap((n) => {
    try {
      return [JSON.parse(localStorage.getItem(n)!) as Letter]
    } catch {
      return [] // not ours
    }
  })
}

/** Letters that are on their way right now: they are kept, should the tablet be switched off, and wait for nothing. */
const inHand = new Set<string>()
const waiting = () => read().filter((l) => !inHand.has(l.key))
const kept = shallowRef<Letter[]>(waiting())
const refresh = () => (kept.value = waiting())
window.addEventListener('storage', refresh)
const keep = (l: Letter) => {
  try {
    localStorage.setItem(nameOf(l), JSON.stringify(l))
  } catch {
    throw new Error('There is no room left on this tablet to keep it. Leave it on the screen until the program is back.')
  }
  refresh()
}
const drop = (l: Letter) => {
  localStorage.removeItem(nameOf(l))
  refresh()
}

/** What waits on this tablet, in order. */
export const letters = computed(() => kept.value)
/** The last change of a thing that waits. */
export const waitingFor = (path: string) => kept.value.filter((l) => l.path === path).at(-1)

/** A list as it will be once everything has landed: changed where a change waits, without what was put aside. */
export function asItWillBe<T>(items: T[], pathOf: (item: T) => string, changed: (item: T, body: unknown) => T): T[] {
  return items.flatMap((item) => {
    const l = waitingFor(pathOf(item))
    if (!l || l.trouble) return [item]
    return l.method === 'DELETE' ? [] : [changed(item, l.body)]
  })
}

export type Delivered<T> = { landed: true; answer: T } | { landed: false }
type Landed = (letter: Letter, answer: unknown) => unknown
const listeners = new Set<Landed>()
/** Is called for every letter that landed after it had waited. */
export function onLanded(f: Landed) {
  listeners.add(f)
  return () => listeners.delete(f)
}

/** The page is known by when it began: its own clock counts from there. */
const clocks = () => ({ page: performance.timeOrigin, ms: performance.now(), wall: Date.now() })
/**
 * How long a letter waited, in ms. The tablet's clock counts across a reload; inside one page its own does, which nobody can set.
 * That one may stand while the tablet sleeps, so the longer of the two counts: food is never told younger than it is.
 */
export function waitedMs(l: Letter, now = clocks()): number {
  if (!l.written) return 0
  const wall = now.wall - l.written.wall
  const page = now.page === l.written.page ? now.ms - l.written.ms : 0
  return Math.round(Math.max(0, wall, page))
}

async function post(l: Letter): Promise<unknown> {
  const headers: Record<string, string> = { 'Idempotency-Key': l.key, 'Waited-Ms': String(waitedMs(l)) }
  if (l.body !== undefined) headers['Content-Type'] = 'application/json'
  if (l.revision !== undefined) headers['If-Match'] = `"${l.revision}"`
  try {
    const r = await sent(l.path, { method: l.method, headers, body: l.body === undefined ? undefined : JSON.stringify(l.body) })
    return r.status === 204 ? undefined : await r.json()
  } catch (e) {
    // It was put aside already: an earlier try arrived and its answer got lost, or another tablet did.
    if (l.method === 'DELETE' && e instanceof Refusal && e.status === 404) return undefined
    throw e
  }
}

/**
 * Sends a change. While the program is away it waits on this tablet, behind what waits already, and lands when the
 * program is back. What the program refuses is thrown.
 */
export async function deliver<T = unknown>(wish: Wish): Promise<Delivered<T>> {
  const l: Letter = { ...wish, key: wish.key ?? newKey(), seq: (read().at(-1)?.seq ?? 0) + 1, written: clocks() }
  if (!kept.value.some((k) => !k.trouble)) {
    l.tried = true
    const answer = await sentAtOnce(l)
    if (answer) return { landed: true, answer: answer.of as T }
  }
  // A later change of the same thing takes the place of one that waits and was never tried.
  const before = l.method === 'PUT' ? waitingFor(l.path) : undefined
  if (before?.method === 'PUT' && !before.tried) {
    drop(before)
    l.revision = before.revision
  }
  keep(l)
  void flush()
  return { landed: false }
}

/** Sends a letter that nothing waits before. Without an answer it stays, to be sent again; what is refused is thrown. */
async function sentAtOnce(l: Letter): Promise<{ of: unknown } | undefined> {
  inHand.add(l.key)
  try {
    keep(l)
  } catch {
    // No room: it can still go straight through.
  }
  try {
    const of = await post(l)
    drop(l)
    return { of }
  } catch (e) {
    drop(l)
    if (!(e instanceof Refusal && e.passes)) throw e
    return undefined
  } finally {
    inHand.delete(l.key)
    refresh()
  }
}

/** Puts a thing aside. */
export const putAside = (path: string, what: string) => deliver({ what: `${what}, put aside`, method: 'DELETE', path })
/** Brings it back: by giving up what was never sent, or by asking for it. */
export function bringBack(path: string, what: string) {
  const l = waitingFor(path)
  if (l?.method === 'DELETE' && !l.tried) {
    drop(l)
    return Promise.resolve<Delivered<unknown>>({ landed: false })
  }
  return deliver({ what: `${what}, brought back`, method: 'POST', path: `${path}/restore` })
}

/** What a cook is told of a change that waits. */
export const waits = (what: string) => `${what} waits on this tablet and goes to the kitchen when the program is back.`

let flushing: Promise<void> | undefined
let timer: ReturnType<typeof setTimeout> | undefined
/** Sends what waits, in order, as far as the program answers. */
export function flush(): Promise<void> {
  clearTimeout(timer)
  const alone = (f: () => Promise<void>) => (navigator.locks ? navigator.locks.request('ladle.out', f).then(() => undefined) : f())
  flushing ??= alone(sendAll).finally(() => {
    flushing = undefined
    if (kept.value.some((l) => !l.trouble)) timer = setTimeout(() => void flush(), againMs)
  })
  return flushing
}
async function sendAll() {
  for (let l = next(); l; l = next()) {
    let answer: unknown
    if (!l.tried) keep((l = { ...l, tried: true }))
    try {
      answer = await post(l)
    } catch (e) {
      if (e instanceof Refusal && e.passes) return
      keep({ ...l, trouble: said(e), stale: e instanceof Refusal && e.status === 409 })
      continue
    }
    drop(l)
    // A change of the same thing that waits was made on top of this one.
    const { revision } = (answer ?? {}) as { revision?: number }
    for (const w of read()) if (w.method === 'PUT' && l.method === 'PUT' && w.path === l.path) keep({ ...w, revision })
    for (const f of listeners) await f(l, answer)
  }
}
const next = () => waiting().find((l) => !l.trouble)

/** Gives one up; the answer puts it back. */
export function giveUp(l: Letter) {
  drop(l)
  return () => keep(l)
}
/** Sends one over what somebody else saved meanwhile; that stays among the earlier states. */
export async function sendOver(l: Letter) {
  const now = (await (await sent(l.path, {})).json()) as { revision: number }
  keep({ ...l, revision: now.revision, trouble: undefined, stale: undefined })
  await flush()
}

window.addEventListener('online', () => void flush())
