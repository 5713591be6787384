import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Variation } from '@/api/client'
import { useBench } from './bench'

/** A program of the test's own: it keeps one variation and does as it is told. */
const program = {
  revision: 1,
  document: {} as Variation,
  saves: [] as { match: string; name: string }[],
  worksheets: 0,
  save: undefined as undefined | (() => Response | Promise<Response>), // answers the next saves otherwise
  worksheet: undefined as undefined | ((asked: { name: boolean; document: Variation }) => Response | Promise<Response>),
  others: [] as string[], // names of the rest of the list
}
const json = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } })
const saved = () => ({ id: 'v1', revision: program.revision, updated_at: '2026-11-02T06:00:00Z', document: program.document })

async function answer(request: Request): Promise<Response> {
  const path = new URL(request.url, 'http://here').pathname.replace('/api/v1', '')
  if (path === '/worksheets') {
    program.worksheets++
    const asked = { name: request.url.includes('name'), document: (await request.json()) as Variation }
    return program.worksheet ? program.worksheet(asked) : json({ lines: [], portion: {}, held: ['thickness', 'tang'] })
  }
  if (request.method === 'PUT') {
    const document = (await request.json()) as Variation
    program.saves.push({ match: request.headers.get('If-Match') ?? '', name: document.name })
    if (program.save) return program.save()
    program.revision++
    program.document = document
    return json(saved())
  }
  if (path === '/variations/v1') return json(saved())
  if (path === '/variations' && request.method === 'POST') {
    program.document = (await request.json()) as Variation
    return json(saved(), 201)
  }
  const item = (id: string, name: string) => ({ id, name, form: 'pancake', revision: program.revision, updated_at: '', verdict: '' })
  return json({ items: [item('v1', program.document.name), ...program.others.map((name, i) => item(`o${i}`, name))] })
}

const plain = (): Variation => ({
  format: 'upbeat-ladle/variation',
  version: 1,
  name: 'Beetroot',
  form: 'pancake',
  base: { name: 'Plain', lines: [{ ingredient: 'plain_flour', amount: 250, unit: 'g' }] },
  additions: [{ ingredient: 'beetroot_cooked', amount: 200, unit: 'g' }],
})

beforeEach(() => {
  vi.useFakeTimers()
  localStorage.clear()
  Object.assign(program, { revision: 1, document: plain(), saves: [], worksheets: 0, save: undefined, worksheet: undefined, others: [] })
  vi.stubGlobal(
    'fetch',
    vi.fn((to: Request | string, init?: RequestInit) => answer(to instanceof Request ? to : new Request(new URL(to, 'http://here'), init))),
  )
  setActivePinia(createPinia())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

/** Lets everything happen that happens within so many ms. */
const wait = (ms: number) => vi.advanceTimersByTimeAsync(ms)
const draft = () => localStorage.getItem('ladle.draft.v1')

async function opened() {
  const bench = useBench()
  await bench.start()
  await wait(10)
  return bench
}

describe('a new one', () => {
  const on = {
    id: 'b1',
    revision: 3,
    document: { format: 'upbeat-ladle/base', version: 1, ...plain().base, name: 'Plain', form: 'pancake' } as never,
  }
  beforeEach(() => {
    program.worksheet = ({ name, document }) => {
      const called = (document.additions ?? []).map((a) => a.ingredient).join(' & ') || 'Plain'
      return json({ lines: [], portion: {}, held: [], ...(name ? { proposed_name: called } : {}) })
    }
  })
  const put = (bench: ReturnType<typeof useBench>, ingredient: string) =>
    bench.change((d) => (d.additions = [...(d.additions ?? []), { ingredient, amount: 100, unit: 'g' }]))

  it('is called by what goes into it, with a number where another is, and goes back with it', async () => {
    program.others = ['Plain', 'carrot']
    const bench = await opened()
    await bench.begin(on)
    await wait(50)
    expect(bench.doc!.name).toBe('Plain 2')
    put(bench, 'carrot')
    await wait(900)
    expect(bench.doc!.name).toBe('carrot 2')
    put(bench, 'walnut')
    await wait(900)
    expect(bench.doc!.name).toBe('carrot & walnut')
    expect(program.document.name).toBe('carrot & walnut')
    bench.undo()
    await wait(900)
    expect([bench.doc!.name, bench.doc!.additions?.length]).toEqual(['carrot 2', 1])
  })

  it('keeps the name that the cook gave it', async () => {
    const bench = await opened()
    await bench.begin(on)
    await wait(50)
    bench.rename('Sunday')
    put(bench, 'carrot')
    await wait(900)
    expect(program.document.name).toBe('Sunday')
  })

  it('is never another one, which was there before', async () => {
    const bench = await opened()
    put(bench, 'carrot')
    await wait(900)
    expect(bench.doc!.name).toBe('Beetroot')
  })
})

describe('saving', () => {
  it('sends the whole document once, 600 ms after the last change', async () => {
    const bench = await opened()
    for (const name of ['A', 'AB', 'ABC']) {
      bench.change((d) => (d.name = name))
      await wait(300)
    }
    expect(program.saves).toEqual([])
    await wait(400)
    expect(program.saves).toEqual([{ match: '"1"', name: 'ABC' }])
    expect(bench.saveState).toBe('saved')
    expect(bench.revision).toBe(2)
  })

  it('keeps a draft on the tablet until the program has it', async () => {
    const bench = await opened()
    bench.change((d) => (d.name = 'Typed'))
    await wait(200)
    expect(draft()).toContain('Typed')
    await wait(600)
    expect(draft()).toBeNull()
  })

  it('saves again what changed while a save was on its way', async () => {
    const bench = await opened()
    let release!: () => void
    program.save = () =>
      new Promise((done) => {
        release = () => {
          program.save = undefined
          program.revision = 2
          done(json({ ...saved(), revision: 2 }))
        }
      })
    bench.change((d) => (d.name = 'First'))
    await wait(700)
    bench.change((d) => (d.name = 'Second'))
    release()
    await wait(1500)
    expect(program.saves).toEqual([
      { match: '"1"', name: 'First' },
      { match: '"2"', name: 'Second' },
    ])
    expect(bench.saveState).toBe('saved')
  })
})

describe('when the program is away', () => {
  it('says so, keeps the draft, and sends it when it is back', async () => {
    const bench = await opened()
    program.save = () => Promise.reject(new TypeError('refused'))
    bench.change((d) => (d.name = 'While away'))
    await wait(700)
    expect(bench.saveState).toBe('offline')
    expect(draft()).toContain('While away')
    await wait(4100)
    expect(program.saves).toHaveLength(2)
    program.save = undefined
    await wait(4100)
    expect(bench.saveState).toBe('saved')
    expect(program.document.name).toBe('While away')
    expect(draft()).toBeNull()
  })

  it('waits in the same way when too much is being worked out', async () => {
    const bench = await opened()
    program.save = () => json({ detail: 'Too much is being worked out at the moment.' }, 503)
    bench.change((d) => (d.name = 'Busy'))
    await wait(700)
    expect(bench.saveState).toBe('offline')
    program.save = undefined
    await wait(4100)
    expect(bench.saveState).toBe('saved')
  })

  it('opens with the draft of a tab that was closed, and saves it', async () => {
    localStorage.setItem('ladle.draft.v1', JSON.stringify({ revision: 1, doc: { ...plain(), name: 'Not sent yet' } }))
    const bench = await opened()
    expect(bench.doc?.name).toBe('Not sent yet')
    await wait(700)
    expect(program.document.name).toBe('Not sent yet')
  })
})

describe('two tablets', () => {
  const elsewhere = () =>
    json({ detail: 'Changed on another tablet', current: { ...saved(), revision: 7, document: { ...plain(), name: 'Theirs' } }, yours: plain() }, 409)

  it('never overwrites: the cook chooses theirs', async () => {
    const bench = await opened()
    program.save = elsewhere
    bench.change((d) => (d.name = 'Mine'))
    await wait(700)
    expect(bench.saveState).toBe('conflict')
    bench.change((d) => (d.name = 'Mine again'))
    await wait(5000)
    expect(program.saves, 'nothing is sent while it is open').toHaveLength(1)
    bench.settle('theirs')
    expect(bench.doc?.name).toBe('Theirs')
    expect(bench.revision).toBe(7)
    expect(draft()).toBeNull()
  })

  it('or mine, over the revision that is there', async () => {
    const bench = await opened()
    program.save = elsewhere
    bench.change((d) => (d.name = 'Mine'))
    await wait(700)
    program.save = undefined
    bench.settle('mine')
    await wait(700)
    expect(program.saves.at(-1)).toEqual({ match: '"7"', name: 'Mine' })
    expect(bench.saveState).toBe('saved')
  })

  it('a draft on an older revision meets the other tablet as a conflict', async () => {
    localStorage.setItem('ladle.draft.v1', JSON.stringify({ revision: 1, doc: { ...plain(), name: 'Old draft' } }))
    program.revision = 7
    program.save = elsewhere
    const bench = await opened()
    await wait(700)
    expect(program.saves[0]?.match).toBe('"1"')
    expect(bench.saveState).toBe('conflict')
  })
})

describe('what the program refuses', () => {
  it('is told with its sentence, and the work stays', async () => {
    const bench = await opened()
    program.save = () => json({ detail: 'x', errors: [{ pointer: '/name', code: 'missing', message: 'Give it a name.' }] }, 400)
    bench.change((d) => (d.name = ''))
    await wait(700)
    expect(bench.saveState).toBe('refused')
    expect(bench.saveTrouble).toBe('Give it a name.')
    expect(draft()).toContain('"name":""')
    program.save = undefined
    bench.change((d) => (d.name = 'Named'))
    await wait(700)
    expect(bench.saveState).toBe('saved')
  })
})

describe('working out', () => {
  it('asks one thing at a time, the newest next', async () => {
    const bench = await opened()
    const before = program.worksheets
    let release!: () => void
    program.worksheet = () => new Promise((done) => (release = () => done(json({ lines: [], held: [] }))))
    for (let i = 0; i < 20; i++) bench.change((d) => (d.name = `n${i}`))
    await wait(1)
    expect(program.worksheets - before, 'one is under way').toBe(1)
    program.worksheet = undefined
    release()
    await wait(1)
    expect(program.worksheets - before, 'and one more answers all the rest').toBe(2)
  })

  it('keeps the last good figures beside the trouble', async () => {
    const bench = await opened()
    const good = bench.sheet
    program.worksheet = async () => json({ detail: 'There is no flour in this base.' }, 400)
    bench.change((d) => (d.name = 'x'))
    await wait(1)
    expect(bench.trouble).toBe('There is no flour in this base.')
    expect(bench.sheet).toEqual(good)
  })

  it('undoes one drag as one step, and redoes it', async () => {
    const bench = await opened()
    for (const g of [210, 220, 230]) bench.changeAddition('a1', { amount: g })
    await wait(500)
    bench.undo()
    expect(bench.doc?.additions?.[0]?.amount).toBe(200)
    bench.redo()
    expect(bench.doc?.additions?.[0]?.amount).toBe(230)
  })

  it('lets one property go and keeps the others held', async () => {
    const bench = await opened()
    bench.letGo('tang')
    expect(bench.doc?.offset?.hold).toEqual(['thickness'])
  })
})
