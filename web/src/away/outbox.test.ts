import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

/** A kitchen of the test's own: what landed, in order, and how often; the network loses what it is told to. */
interface Doc {
  revision: number
  body: unknown
}
const kitchen = {
  docs: new Map<string, Doc>(),
  made: new Map<string, string>(), // key → path
  log: [] as string[],
  waited: [] as number[], // ms, as letters tell
  lose: () => '' as '' | 'request' | 'answer' | 'locked',
}
const json = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status })
const problem = (status: number, type: string) => json({ type: `tag:upbeat-ladle:${type}`, detail: type }, status)

function arrive(method: string, path: string, headers: Headers, body: unknown): Response {
  if (method === 'POST' && !path.endsWith('/restore')) {
    const key = headers.get('Idempotency-Key')!
    const had = kitchen.made.get(key)
    if (had) return json({ id: had, ...kitchen.docs.get(had) }, 201)
    const at = `${path}/${kitchen.made.size + 1}`
    kitchen.made.set(key, at)
    kitchen.docs.set(at, { revision: 1, body })
    kitchen.log.push(`POST ${at}`)
    return json({ id: at, revision: 1, body }, 201)
  }
  const doc = kitchen.docs.get(path)
  if (method === 'DELETE') {
    if (!doc) return problem(404, 'not_found')
    kitchen.docs.delete(path)
    kitchen.log.push(`DELETE ${path}`)
    return new Response(undefined, { status: 204 })
  }
  if (!doc) return problem(404, 'not_found')
  if (method === 'GET') return json(doc)
  if (JSON.stringify(doc.body) === JSON.stringify(body)) return json(doc)
  if (headers.get('If-Match') !== `"${doc.revision}"`) return problem(409, 'conflict')
  Object.assign(doc, { revision: doc.revision + 1, body })
  kitchen.log.push(`PUT ${path} ${JSON.stringify(body)}`)
  return json(doc)
}

async function network(url: string, init: RequestInit = {}): Promise<Response> {
  const fate = kitchen.lose()
  if (fate === 'request') throw new TypeError('Failed to fetch')
  if (fate === 'locked') return problem(401, 'signed_out')
  kitchen.waited.push(Number(new Headers(init.headers).get('Waited-Ms')))
  const answer = arrive(init.method ?? 'GET', url.replace('/api/v1', ''), new Headers(init.headers), init.body && JSON.parse(init.body as string))
  if (fate === 'answer') throw new TypeError('Failed to fetch')
  return answer
}

/** The tablet is switched on: whatever was in memory is gone. */
async function switchedOn() {
  await vi.advanceTimersByTimeAsync(0)
  vi.clearAllTimers()
  vi.resetModules()
  return await import('./outbox')
}

beforeEach(() => {
  vi.useFakeTimers()
  localStorage.clear()
  Object.assign(kitchen, { docs: new Map([['/bases/b', { revision: 3, body: 'base' }]]), made: new Map(), log: [], waited: [], lose: () => '' })
  vi.stubGlobal('fetch', vi.fn(network))
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
const settle = () => vi.advanceTimersByTimeAsync(60_000)

describe('what waits on a tablet', () => {
  it('goes straight through while the program is there', async () => {
    const box = await switchedOn()
    expect(await box.deliver({ what: 'a base', method: 'POST', path: '/bases', body: 'x' })).toMatchObject({ landed: true, answer: { revision: 1 } })
    expect(box.letters.value).toEqual([])
  })

  it('tells at once what the program refuses, and keeps nothing of it', async () => {
    const box = await switchedOn()
    await expect(box.deliver({ what: 'a base', method: 'PUT', path: '/bases/b', revision: 2, body: 'x' })).rejects.toThrow('conflict')
    expect(box.letters.value).toEqual([])
  })

  it('lands in order after the tablet was switched off', async () => {
    let box = await switchedOn()
    kitchen.lose = () => 'request'
    await box.deliver({ what: 'first', method: 'PUT', path: '/bases/b', revision: 3, body: 'one' })
    await box.deliver({ what: 'second', method: 'POST', path: '/pantry', body: 'jam' })
    await box.deliver({ what: 'third', method: 'DELETE', path: '/bases/b' })
    box = await switchedOn()
    expect(box.letters.value.map((l) => l.what)).toEqual(['first', 'second', 'third'])
    kitchen.lose = () => ''
    await box.flush()
    expect(kitchen.log).toEqual(['PUT /bases/b "one"', 'POST /pantry/1', 'DELETE /bases/b'])
    expect(box.letters.value).toEqual([])
  })

  it('outlives a tablet that is switched off while it is on its way', async () => {
    let box = await switchedOn()
    vi.stubGlobal(
      'fetch',
      vi.fn(() => new Promise<Response>(() => {})), // neither an answer nor a failure
    )
    void box.deliver({ what: 'jam', method: 'POST', path: '/pantry', body: 'jam' })
    expect(box.letters.value, 'it is on its way, not waiting').toEqual([])
    vi.stubGlobal('fetch', vi.fn(network))
    box = await switchedOn()
    await box.flush()
    expect(kitchen.log).toEqual(['POST /pantry/1'])
    expect(box.letters.value).toEqual([])
  })

  it('tells how long it waited, across a reload and a clock that was set back', async () => {
    let box = await switchedOn()
    kitchen.lose = () => 'request'
    await box.deliver({ what: 'an egg', method: 'POST', path: '/batches/1/events', body: 'egg' })
    kitchen.waited = []
    const written = Date.now()
    box = await switchedOn()
    vi.setSystemTime(written + 28 * 60_000)
    kitchen.lose = () => ''
    await box.flush()
    expect(kitchen.waited.at(-1)! / 60_000).toBeCloseTo(28, 1)
    await box.deliver({ what: 'milk', method: 'POST', path: '/batches/1/events', body: 'milk' })
    expect(kitchen.waited.at(-1), 'what goes straight through did not wait').toBe(0)
    const l = { key: 'k', seq: 1, what: 'x', method: 'POST', path: '/x', written: { page: 5, ms: 1000, wall: 100_000 } } as const
    expect(box.waitedMs(l, { page: 5, ms: 61_000, wall: 40_000 }), 'the clock was set back').toBe(60_000)
    expect(box.waitedMs(l, { page: 5, ms: 2000, wall: 160_000 }), 'the tablet slept').toBe(60_000)
    expect(box.waitedMs(l, { page: 9, ms: 0, wall: 40_000 }), 'never below nothing').toBe(0)
  })

  it('shows a list as it will be', async () => {
    const box = await switchedOn()
    kitchen.lose = () => 'request'
    await box.deliver({ what: 'b', method: 'PUT', path: '/bases/b', revision: 3, body: 'changed' })
    await box.putAside('/bases/c', 'c')
    const seen = () =>
      box.asItWillBe(
        ['b', 'c', 'd'],
        (x) => `/bases/${x}`,
        (_, body) => String(body),
      )
    expect(seen()).toEqual(['changed', 'd'])
    await box.bringBack('/bases/c', 'c')
    expect(seen(), 'what was never sent is simply given up').toEqual(['changed', 'c', 'd'])
  })

  it('asks when another tablet changed the same, and sends the rest', async () => {
    const box = await switchedOn()
    kitchen.lose = () => 'request'
    await box.deliver({ what: 'mine', method: 'PUT', path: '/bases/b', revision: 3, body: 'mine' })
    await box.deliver({ what: 'jam', method: 'POST', path: '/pantry', body: 'jam' })
    kitchen.docs.set('/bases/b', { revision: 4, body: 'theirs' })
    kitchen.lose = () => ''
    await settle()
    expect(kitchen.log).toEqual(['POST /pantry/1'])
    const [stuck] = box.letters.value
    expect(stuck).toMatchObject({ what: 'mine', stale: true, trouble: 'conflict' })
    await box.sendOver(stuck!)
    expect(kitchen.docs.get('/bases/b')).toEqual({ revision: 5, body: 'mine' })
    expect(box.letters.value).toEqual([])
  })

  it('gives up what a cook gives up, and takes that back', async () => {
    const box = await switchedOn()
    kitchen.lose = () => 'request'
    await box.deliver({ what: 'jam', method: 'POST', path: '/pantry', body: 'jam' })
    const back = box.giveUp(box.letters.value[0]!)
    expect(box.letters.value).toEqual([])
    back()
    kitchen.lose = () => ''
    await settle()
    expect(kitchen.log).toEqual(['POST /pantry/1'])
  })

  // However the network fails, and whenever the tablet is switched off: everything lands once, in order.
  it('lands once and in order whatever gets lost', async () => {
    let seed = 7
    const random = (n: number) => {
      seed = (seed * 1103515245 + 12345) % 2147483648 // a plain linear congruential one, so that a failure repeats
      return Math.floor((seed / 2147483648) * n)
    }
    for (let round = 0; round < 40; round++) {
      localStorage.clear()
      Object.assign(kitchen, { docs: new Map([['/bases/b', { revision: 3, body: 'base' }]]), made: new Map(), log: [] })
      const fates = ['', '', 'request', 'answer', 'locked'] as const
      kitchen.lose = () => fates[random(fates.length)]!
      let box = await switchedOn()
      let last = 'base'
      const made: string[] = []
      for (let i = 0; i < 12; i++) {
        if (random(2)) {
          last = `state ${i}`
          // The screen knows the revision of the answer that it saw, or what waits knows better.
          const seen = kitchen.docs.get('/bases/b')!.revision
          await box.deliver({ what: last, method: 'PUT', path: '/bases/b', revision: seen, body: last })
        } else {
          made.push(`jam ${i}`)
          await box.deliver({ what: `jam ${i}`, method: 'POST', path: '/pantry', body: `jam ${i}` })
        }
        if (random(4) === 0) box = await switchedOn()
        if (random(3) === 0) await vi.advanceTimersByTimeAsync(random(9000))
      }
      kitchen.lose = () => ''
      await box.flush()
      await settle()
      expect(box.letters.value, `round ${round}`).toEqual([])
      const jams = kitchen.log.filter((l) => l.startsWith('POST')).map((l) => kitchen.docs.get(l.slice(5))!.body)
      expect(jams, `round ${round}`).toEqual(made)
      expect(kitchen.docs.get('/bases/b')!.body, `round ${round}`).toBe(last)
      const states = kitchen.log.filter((l) => l.startsWith('PUT')).map((l) => Number(l.match(/\d+/)![0]))
      expect(states, `round ${round}`).toEqual([...states].sort((a, b) => a - b))
      expect(new Set(states).size, `round ${round}`).toBe(states.length)
    }
  })
})
