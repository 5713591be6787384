import { useDebounceFn } from '@vueuse/core'
import { computed, getCurrentScope, onScopeDispose, ref, shallowRef, type Ref } from 'vue'
import { faultsOf } from '@/api/client'
import { useCatchUp } from './catchUp'

export interface AskedOptions {
  afterMs?: number // of quiet before it is asked
  atLeastEveryMs?: number // a button that is held does not starve it
  /** What comes of a question while an earlier one is under way: it takes its place, or waits and goes next. */
  meanwhile?: 'instead' | 'next'
}

/**
 * A question and its last answer. Asked again while it is under way, only the newest counts: answers never overtake each
 * other. While the program is away the last answer stays, and it is asked again when it is back. Without a question
 * (undefined) nothing is asked.
 */
export function useAsked<A>(question: (signal: AbortSignal) => Promise<A> | undefined, o: AskedOptions = {}) {
  const { afterMs = 120, atLeastEveryMs, meanwhile = 'instead' } = o
  const answer = shallowRef() as Ref<A | undefined>
  const faults = ref<Record<string, string>>({}) // sentence by JSON Pointer, without its first slash
  const trouble = ref<string>() // what belongs to no field
  const asking = ref(false)
  const settled = computed(() => !asking.value && !trouble.value)

  let asked = 0
  let stop: AbortController | undefined
  let under: Promise<unknown> | undefined
  let stale = false

  /** Asks at once; undefined when a newer question took its place, or it was refused. */
  async function now(): Promise<A | undefined> {
    if (meanwhile === 'next' && under) {
      stale = true
      await under
      return answer.value
    }
    const mine = one()
    if (meanwhile === 'next') under = mine.finally(() => (under = undefined))
    const out = await mine
    if (stale) {
      stale = false
      return now()
    }
    return out
  }
  async function one(): Promise<A | undefined> {
    const mine = ++asked
    stop?.abort()
    stop = new AbortController()
    const call = question(stop.signal)
    if (!call) {
      asking.value = false
      return undefined
    }
    asking.value = true
    try {
      const out = await call
      if (mine !== asked) return undefined
      answer.value = out
      faults.value = {}
      trouble.value = undefined
      return out
    } catch (e) {
      if (mine !== asked) return undefined
      const { '': general, ...fields } = faultsOf(e)
      faults.value = fields
      trouble.value = general
      return undefined
    } finally {
      if (mine === asked) asking.value = false
    }
  }
  const soon = useDebounceFn(now, afterMs, { maxWait: atLeastEveryMs })

  /** Forgets the answer, and what is under way. */
  function clear() {
    asked++
    stop?.abort()
    answer.value = trouble.value = undefined
    faults.value = {}
    asking.value = false
  }
  useCatchUp(trouble, now)
  if (getCurrentScope()) onScopeDispose(() => stop?.abort())
  return { answer, faults, trouble, asking, settled, now, soon, clear }
}
