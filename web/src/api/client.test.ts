import { afterEach, describe, expect, it, vi } from 'vitest'
import { api, faultsOf, got, newKey, Refusal, said, unreachable, useLatest } from './client'

/** What the program answers next. */
const answers = (status: number, body: unknown) =>
  vi.stubGlobal(
    'fetch',
    vi.fn(async () => new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } })),
  )
afterEach(() => vi.unstubAllGlobals())

describe('answers of the program', () => {
  it('gives the data of a success', async () => {
    answers(200, { amount: 1.5 })
    expect(await got(api.POST('/amounts', { body: { text: '1½' } }))).toEqual({ amount: 1.5 })
  })

  it('turns every refusal into a sentence, and sentences at fields', async () => {
    answers(400, {
      title: 'This cannot be worked with',
      detail: 'All of it.',
      status: 400,
      errors: [{ pointer: '/text', code: 'not_an_amount', message: 'That is not an amount.' }],
    })
    const e = await got(api.POST('/amounts', { body: { text: 'x' } })).catch((x: unknown) => x)
    expect(e).toBeInstanceOf(Refusal)
    expect(said(e)).toBe('That is not an amount.')
    expect(faultsOf(e)).toEqual({ text: 'That is not an amount.' })
    expect((e as Refusal).status).toBe(400)
  })

  it('says so when nobody answers', async () => {
    vi.stubGlobal(
      'fetch',
      vi.fn(async () => Promise.reject(new TypeError('refused'))),
    )
    const e = await got(api.GET('/kitchen')).catch((x: unknown) => x)
    expect(said(e)).toBe(unreachable)
    expect(faultsOf(e)).toEqual({ '': unreachable })
  })

  it('has a sentence for an answer that is none', async () => {
    vi.stubGlobal(
      'fetch',
      vi.fn(async () => new Response('<html>', { status: 502 })),
    )
    expect(said(await got(api.GET('/kitchen')).catch((x: unknown) => x))).toContain('Nothing was lost')
  })
})

describe('answers that overtake each other', () => {
  it('keeps the one to the latest question', async () => {
    const latest = useLatest()
    let first!: (v: string) => void
    const slow = latest(new Promise<string>((done) => (first = done)))
    const quick = latest(Promise.resolve('second'))
    first('first')
    expect(await quick).toBe('second')
    expect(await slow).toBeUndefined()
  })

  it('does not tell of a failure that nobody waits for any more', async () => {
    const latest = useLatest()
    const gone = latest(Promise.reject(new Error('old')))
    expect(await latest(Promise.resolve(2))).toBe(2)
    expect(await gone).toBeUndefined()
    await expect(latest(Promise.reject(new Error('new')))).rejects.toThrow('new')
  })
})

it('makes keys that differ, also where there is no secure page', () => {
  expect(newKey()).toMatch(/^[0-9a-f]{32}$/)
  expect(newKey()).not.toBe(newKey())
})
