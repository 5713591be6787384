import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { api, got, type Schemas } from '@/api/client'
import { useLive } from '@/parts/useLive'

export type BatchNow = Schemas['BatchNow']
export type TaskNow = Schemas['TaskNow']
export type BatchEvent = Omit<Schemas['BatchEvent'], 'id' | 'at' | 'took' | 'knew'>

/** The bowl that is being made: what the program says of it, live, and what this tablet tells. */
export const useSheet = defineStore('sheet', () => {
  const { now: batch, ...live } = useLive<BatchNow, Schemas['BatchEvent']>({
    name: 'batch',
    folder: '/batches',
    keptAs: 'ladle.sheet.',
    title: (b) => b.plan.name,
    get: (id) => got(api.GET('/batches/{id}', { params: { path: { id } } })),
  })
  const { id, trouble, gone, away, nowMs, waiting, undone, last, close, takeBack } = live
  /** Whether something waits here that the bowl's clock goes by, or may: the program counts it when it is back. */
  const clockWaits = computed(
    () =>
      away.value && (!batch.value?.state.clock.since || waiting.value.some((e) => ['into_fridge', 'out_of_fridge', 'took_back'].includes(e.kind))),
  )
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

  async function open(which: string) {
    if (id.value !== which) picked.value = undefined
    await live.open(which)
  }
  async function tell(event: BatchEvent, what: string, inField = false) {
    picked.value = undefined
    return live.tell({ ...event, knew: batch.value?.state.events }, what, inField)
  }
  return {
    id,
    batch,
    trouble,
    gone,
    away,
    nowMs,
    waiting,
    isWaiting,
    clockWaits,
    picked,
    tasks,
    current,
    next,
    last,
    stillOpen,
    open,
    close,
    tell,
    takeBack,
  }
})
