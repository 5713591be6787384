import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { api, got, newKey, said, type Schemas } from '@/api/client'
import { useBench } from '@/bench/bench'
import { say } from '@/parts/say'
import { today } from '@/parts/clock'
import { useLive } from '@/parts/useLive'

export type BoardNow = Schemas['BoardNow']
export type Bowl = Schemas['BoardBowlNow']
export type Plate = Schemas['BoardPlate']
export type Place = Schemas['BoardPlace']
export type Todo = Schemas['BoardTodo']
export type Tray = Schemas['BoardTray']
export type BoardEvent = Omit<Schemas['BoardEvent'], 'id' | 'at' | 'bowl' | 'packs'>

/** The morning at the plates: what the program says of it, live, and what this tablet tells. */
export const useBoard = defineStore('board', () => {
  const { now: board, ...live } = useLive<BoardNow, Schemas['BoardEvent']>({
    name: 'board',
    folder: '/boards',
    keptAs: 'ladle.board.',
    title: (b) => b.name,
    get: (id) => got(api.GET('/boards/{id}', { params: { path: { id } } })),
  })
  const state = computed(() => board.value?.state)
  const bowls = computed(() => new Map((state.value?.bowls ?? []).map((b) => [b.key, b])))

  /** Whether it was looked for a board, and what came in the way. */
  const looked = ref(false)
  const lookTrouble = ref('')
  const earlier = ref<Schemas['BoardListed'][]>([])
  async function find() {
    lookTrouble.value = ''
    try {
      const { items } = await got(api.GET('/boards'))
      earlier.value = items
      const open = items.find((b) => !b.closed && !b.trouble)
      if (open) await live.open(open.id)
      else live.close()
      looked.value = true
    } catch (e) {
      const kept = Object.keys(localStorage).find((k) => k.startsWith('ladle.board.')) // the program is away: as it was
      if (kept) await live.open(kept.slice('ladle.board.'.length))
      if (board.value) looked.value = true
      else lookTrouble.value = said(e)
    }
  }
  /** The trays with what there is to say of them by now, also while the program is away. */
  const trays = computed(() =>
    (state.value?.rack ?? []).map((t) => ({ ...t, now: t.course.findLast((c) => new Date(c.at).getTime() <= live.nowMs.value) ?? t })),
  )
  /** What a thermometer at a plate says. */
  const reads = (plate: string) => board.value?.reads[plate]
  const key = ref(newKey())
  async function begin() {
    lookTrouble.value = ''
    try {
      const b = await got(api.POST('/boards', { params: { header: { 'Idempotency-Key': key.value } } }))
      key.value = newKey()
      await live.open(b.id)
    } catch (e) {
      lookTrouble.value = said(e)
    }
  }

  /** What was pressed here and has not been seen by the program: it is not pressed again. */
  const pressed = computed(() => new Set(live.waiting.value.flatMap((e) => (live.undone.value.has(e.id) ? [] : [keyOf(e)]))))
  const todo = computed(() => (state.value?.todo ?? []).filter((t) => !t.tell || !pressed.value.has(keyOf(t.tell))))
  /** What the first one of a bowl took becomes the cook's own minutes of its variation, on this plate. */
  async function keepMinutes(of: string) {
    const bowl = bowls.value.get(of)
    if (!bowl?.saw) return
    try {
      const { from } = await got(api.GET('/batches/{id}', { params: { path: { id: bowl.batch } } }))
      if (!from) return say({ message: 'Its variation is not kept here: set the minutes on the bench.' })
      const bench = useBench()
      await bench.start(from.id)
      bench.change((d) => {
        const others = (d.cook?.own ?? []).filter((o) => o.on !== bowl.plate)
        const own = {
          on: bowl.plate,
          ...bowl.saw!,
          c: bowl.griddle_c,
          poured_mm: bowl.poured_mm,
          from: 'board' as const,
          day: today(),
        }
        d.cook = { ...d.cook, own: [...others, own] }
      })
      say({ message: `They are the minutes of “${bowl.name}” from now on.` })
    } catch (e) {
      say({ message: said(e) })
    }
  }
  const does = (t: Todo) => t.tell && live.tell(t.tell as BoardEvent, t.title.toLowerCase())
  return { ...live, board, state, bowls, looked, lookTrouble, earlier, find, begin, reads, trays, todo, pressed, does, keepMinutes }
})

/** What an event is about, so that the same is known when it is seen twice. */
export const keyOf = (e: { kind: string; plate?: string; place?: number; portion?: string; of?: string; c?: number; mark?: string }) =>
  [e.kind, ...(e.kind === 'turned' ? [e.mark ?? e.c] : []), e.portion ?? `${e.plate ?? ''} ${e.place ?? ''} ${e.of ?? ''}`].join(' ')
