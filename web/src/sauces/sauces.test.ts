import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { useSauces, type Sauce } from './sauces'

/** A program of the test's own: it keeps one sauce, works out what it can, and refuses as it is told. */
const program = {
  revision: 1,
  document: {} as Sauce,
  saves: [] as string[],
  refuse: undefined as undefined | ((asked: { sauce: Sauce; now?: unknown }) => { pointer: string; message: string } | undefined),
  stale: false,
}
const json = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } })
const saved = () => ({ id: 's1', revision: program.revision, updated_at: '2026-11-02T06:00:00Z', document: program.document })

async function answer(url: Request | string, init?: RequestInit): Promise<Response> {
  const request = url instanceof Request ? url : new Request(new URL(url, 'http://here'), init)
  const path = new URL(request.url, 'http://here').pathname.replace('/api/v1', '')
  if (path === '/sauce') {
    const asked = (await request.json()) as { sauce: Sauce; now?: unknown }
    const wrong = program.refuse?.(asked)
    return wrong
      ? json({ title: 'no', errors: [{ ...wrong, code: 'x' }] }, 400)
      : json({ servings: 10, serving_g: 25, lines: asked.sauce.lines, now: asked.now })
  }
  if (request.method === 'PUT') {
    if (program.stale) return json({ type: 'tag:upbeat-ladle:conflict', detail: 'Somebody else', current: { ...saved(), revision: 7 } }, 409)
    program.document = (await request.json()) as Sauce
    program.saves.push(program.document.name)
    program.revision++
    return json(saved())
  }
  if (path === '/sauces/s1/uses') return json({ items: [] })
  return json({ items: [{ id: 's1', revision: program.revision, document: program.document }] })
}

beforeEach(() => {
  vi.useFakeTimers()
  localStorage.clear()
  const document: Sauce = {
    format: 'upbeat-ladle/sauce',
    version: 1,
    name: 'Plum',
    kind: 'compote',
    lines: [{ ingredient: 'plum_diced', amount: 500, unit: 'g' }],
  }
  Object.assign(program, { revision: 1, document, saves: [], refuse: undefined, stale: false })
  vi.stubGlobal('fetch', vi.fn(answer))
  setActivePinia(createPinia())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
const settle = () => vi.advanceTimersByTimeAsync(3000)

async function opened() {
  const sauces = useSauces()
  await sauces.load()
  await sauces.open('s1')
  return sauces
}

describe('the sauce on the stove', () => {
  it('saves what can be made, and keeps what cannot on the screen with its sentence', async () => {
    const sauces = await opened()
    sauces.change({ target: { servings: 40, serving_g: 25 } })
    await settle()
    expect(program.saves).toEqual(['Plum'])
    program.refuse = () => ({ pointer: '/sauce/target/brix', message: 'At 100 there is no water left in it.' })
    sauces.change({ target: { brix: 101 } })
    await settle()
    expect(program.saves).toHaveLength(1)
    expect(sauces.faults['sauce/target/brix']).toContain('no water left')
    expect(sauces.doc?.target).toEqual({ brix: 101 })
  })

  it('gives the editor the sentences of its fields, and leaves what was', async () => {
    const sauces = await opened()
    program.refuse = (asked) => (asked.sauce.name === 'Bad' ? { pointer: '/sauce/lines/0/amount', message: 'Above zero.' } : undefined)
    expect(await sauces.keep({ ...sauces.doc!, name: 'Bad' })).toEqual({ 'sauce/lines/0/amount': 'Above zero.' })
    expect(sauces.doc?.name).toBe('Plum')
    expect(await sauces.keep({ ...sauces.doc!, name: 'Plum and pear' })).toBeUndefined()
    expect(program.saves).toEqual(['Plum and pear'])
  })

  it('keeps a reading over a reload, and forgets one that cannot be', async () => {
    let sauces = await opened()
    await sauces.shows({ scale_g: 1050 })
    setActivePinia(createPinia())
    sauces = await opened()
    expect(sauces.pot?.now).toEqual({ scale_g: 1050 })
    program.refuse = (asked) => (asked.now ? { pointer: '/now/scale_g', message: 'More than went in.' } : undefined)
    await sauces.shows({ scale_g: 9000 })
    expect(sauces.faults.now).toBe('More than went in.')
    expect(sauces.reading).toBeUndefined()
    expect(sauces.pot).toBeDefined()
  })

  it('shows both sides when another tablet saved meanwhile, and keeps the one that is chosen', async () => {
    const sauces = await opened()
    program.stale = true
    sauces.change({ served: 'cold' })
    await settle()
    expect(sauces.saveState).toBe('conflict')
    expect(sauces.conflict?.current.revision).toBe(7)
    expect(sauces.doc?.served).toBe('cold')
    program.stale = false
    sauces.settle('mine')
    await settle()
    expect(sauces.saveState).toBe('saved')
    expect(program.document.served).toBe('cold')
    program.stale = true
    sauces.change({ served: 'warm' })
    await settle()
    program.stale = false
    sauces.settle('theirs')
    await settle()
    expect(sauces.doc?.served).toBe('cold')
    expect(sauces.saveState).toBe('saved')
  })

  it('keeps what cannot be made over a reload, and takes a change back', async () => {
    let sauces = await opened()
    program.refuse = (asked) =>
      asked.sauce.target?.brix ? { pointer: '/sauce/target/brix', message: 'At 101 there is no water left in it.' } : undefined
    sauces.change({ target: { brix: 101 } })
    await settle()
    setActivePinia(createPinia())
    sauces = await opened()
    await settle()
    expect(sauces.doc?.target).toEqual({ brix: 101 })
    expect(sauces.faults['sauce/target/brix']).toContain('no water left')
    sauces.change({ target: undefined })
    await settle()
    expect(sauces.saveState).toBe('saved')
    sauces.change({ note: 'With a stick of cinnamon.' })
    await settle()
    sauces.undo()
    await settle()
    expect(program.document.note).toBeUndefined()
  })
})
