import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, ref } from 'vue'
import { Refusal, unreachable } from '@/api/client'
import { useAsked, type AskedOptions } from './useAsked'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())
const wait = (ms: number) => vi.advanceTimersByTimeAsync(ms)

/** A question of the test's own: its answers come when the test lets them. */
function asked(o: AskedOptions = {}) {
  const wish = ref('')
  const under: { wish: string; signal: AbortSignal; answer: (a: string) => void; refuse: (e: unknown) => void }[] = []
  const scope = effectScope()
  const q = scope.run(() =>
    useAsked<string>(
      (signal) =>
        wish.value ? new Promise((answer, refuse) => under.push({ wish: wish.value, signal, answer: (a) => answer(a), refuse })) : undefined,
      o,
    ),
  )!
  return { ...q, wish, under, scope }
}

describe('a question', () => {
  it('is asked once, a moment after the last change', async () => {
    const q = asked()
    for (const w of ['a', 'ab', 'abc']) {
      q.wish.value = w
      void q.soon()
      await wait(60)
    }
    await wait(120)
    expect(q.under.map((u) => u.wish)).toEqual(['abc'])
  })

  it('is asked now and then while a button is held', async () => {
    const q = asked({ atLeastEveryMs: 360 })
    q.wish.value = 'held'
    for (let ms = 0; ms < 1200; ms += 60) {
      void q.soon()
      await wait(60)
    }
    expect(q.under.length).toBeGreaterThanOrEqual(3)
  })

  it('never shows an answer that a later one overtook, and gives the earlier question up', async () => {
    const q = asked()
    q.wish.value = 'one'
    const first = q.now()
    q.wish.value = 'two'
    const second = q.now()
    expect(q.under[0]?.signal.aborted).toBe(true)
    q.under[1]?.answer('2')
    q.under[0]?.answer('1')
    expect(await first).toBeUndefined()
    expect(await second).toBe('2')
    expect(q.answer.value).toBe('2')
    expect(q.asking.value).toBe(false)
  })

  it('lets one under way come to its end where figures are wanted all the way, and asks the newest next', async () => {
    const q = asked({ meanwhile: 'next' })
    q.wish.value = 'one'
    void q.now()
    for (const w of ['two', 'three']) {
      q.wish.value = w
      void q.now()
    }
    expect(q.under).toHaveLength(1)
    q.under[0]?.answer('1')
    await wait(0)
    expect(q.answer.value).toBe('1')
    expect(q.under.map((u) => u.wish)).toEqual(['one', 'three'])
    q.under[1]?.answer('3')
    await wait(0)
    expect(q.answer.value).toBe('3')
    expect(q.asking.value).toBe(false)
  })

  it('keeps the last answer beside a refusal, each sentence at its field', async () => {
    const q = asked()
    q.wish.value = 'good'
    void q.now()
    q.under[0]?.answer('1')
    await wait(0)
    q.wish.value = 'bad'
    void q.now()
    q.under[1]?.refuse(new Refusal(400, { errors: [{ pointer: '/count', code: 'x', message: 'Above zero.' }] }))
    await wait(0)
    expect(q.answer.value).toBe('1')
    expect(q.faults.value).toEqual({ count: 'Above zero.' })
    expect(q.trouble.value).toBeUndefined()
  })

  it('is asked again when the program is back, and is good again', async () => {
    const q = asked()
    q.wish.value = 'a'
    void q.now()
    q.under[0]?.refuse(new Refusal(0))
    await wait(0)
    expect(q.trouble.value).toBe(unreachable)
    await wait(2100)
    q.under[1]?.answer('back')
    await wait(0)
    expect(q.answer.value).toBe('back')
    expect(q.settled.value).toBe(true)
  })

  it('is nothing without a wish, and forgotten when it is cleared or its place is left', async () => {
    const q = asked()
    expect(await q.now()).toBeUndefined()
    expect(q.under).toHaveLength(0)
    q.wish.value = 'a'
    const late = q.now()
    q.clear()
    q.under[0]?.answer('too late')
    expect(await late).toBeUndefined()
    expect(q.answer.value).toBeUndefined()
    void q.now()
    q.scope.stop()
    expect(q.under[1]?.signal.aborted).toBe(true)
  })
})
