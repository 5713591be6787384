import { useIntervalFn, watchThrottled } from '@vueuse/core'
import { computed, ref, watch, type Ref } from 'vue'
import { api, got } from '@/api/client'
import { useScale } from '@/parts/useScale'
import type { TaskNow } from './sheet'

const leaseEveryMs = 10_000
const freeEveryMs = 500

/** What is on the scale belongs to the bowl of a batch; it is kept over a reload of the page. */
const lastBowlKey = 'ladle.bowlOnScale'
export const forgetBowl = () => sessionStorage.removeItem(lastBowlKey)

/**
 * Leads one weigh-in at the scale: the right bowl on it, zero by itself, and then what is poured. Which weights are
 * right, and from when something on the scale is a bowl, the program says.
 */
export function useWeighIn(
  batch: Ref<string | undefined>,
  task: Ref<TaskNow | undefined>,
  bowlFromG: Ref<number>,
  wanted: Ref<boolean>,
  fromJar: Ref<boolean>,
) {
  const { scale, none, tare } = useScale()
  const live = computed(() => scale.value?.link === 'live')
  /** Another bowl has the scale. */
  const taken = computed(() => {
    const s = scale.value
    return s?.batch && s.batch !== batch.value ? s.batch_name : undefined
  })

  const lease = (take?: boolean) =>
    batch.value && wanted.value && !none.value
      ? got(api.POST('/devices/scale/lease', { body: { batch: batch.value, ...(take ? { take } : {}) } })).catch(() => undefined)
      : undefined
  useIntervalFn(() => void lease(), leaseEveryMs, { immediateCallback: true })
  watch(wanted, () => void lease())
  // It fell free, or the program began anew.
  watchThrottled(
    () => scale.value && !scale.value.batch,
    (free) => free && void lease(),
    { throttle: freeEveryMs },
  )

  /** "bowl": it waits for the bowl to stand on the scale; "zero": it is being zeroed; "pour": what it shows is what went in. */
  const phase = ref<'bowl' | 'zero' | 'pour'>('bowl')
  let lowest = Infinity // since it waits for a bowl

  async function zero() {
    const of = task.value
    phase.value = 'zero'
    await tare()
    if (fromJar.value) forgetBowl()
    else if (of && batch.value) sessionStorage.setItem(lastBowlKey, `${batch.value} ${of.bowl}`)
    if (task.value?.id === of?.id) phase.value = 'pour' // else the next one has its own zero
  }
  const hasBowl = () => sessionStorage.getItem(lastBowlKey) === `${batch.value} ${task.value?.bowl}`
  watch(
    [() => task.value?.id, () => task.value?.at, wanted, taken, fromJar],
    () => {
      const t = task.value
      if (t?.kind !== 'weigh' || !wanted.value || taken.value) return
      if (t.spooning) phase.value = 'pour'
      else if (hasBowl() && !fromJar.value) void zero()
      else {
        phase.value = 'bowl'
        lowest = scale.value?.grams ?? Infinity
      }
    },
    { immediate: true },
  )
  watch(scale, (s) => {
    if (phase.value !== 'bowl' || !live.value || s?.grams === undefined || taken.value || task.value?.kind !== 'weigh') return
    lowest = Math.min(lowest, s.grams)
    if (s.steady && s.grams >= lowest + bowlFromG.value) void zero()
  })

  /** What went in; out of a jar on the scale it is what the jar lost. */
  const grams = computed(() => {
    const g = scale.value?.grams
    if (phase.value !== 'pour' || g === undefined) return undefined
    return fromJar.value ? 0 - g : g
  })
  const off = computed(() => !fromJar.value && grams.value !== undefined && grams.value <= -bowlFromG.value)
  const steady = computed(() => !!scale.value?.steady && live.value)
  /** Where the weight lies against what is right. */
  const where = computed<'low' | 'right' | 'high' | undefined>(() => {
    const t = task.value
    if (t?.kind !== 'weigh' || grams.value === undefined) return undefined
    const g = Number(grams.value.toFixed(3))
    return g < t.low_g ? 'low' : g > t.high_g ? 'high' : 'right'
  })
  return { scale, none, live, taken, lease, phase, zero, grams, off, steady, where }
}
