import { useIntervalFn, useLocalStorage } from '@vueuse/core'
import { computed, ref, type Ref } from 'vue'

interface Stove {
  boilsSince?: number // ms
  ringAt?: number
  off?: number // when it came off the heat
}

/** The clock beside a pot: how long it has boiled, and when it rings. It is kept by the tablet, also over a reload. */
export function useStove(id: Ref<string | undefined>, ring: () => void) {
  const all = useLocalStorage<Record<string, Stove>>('ladle.stove', {})
  const nowMs = ref(Date.now())
  const stove = computed(() => (id.value ? all.value[id.value] : undefined) ?? {})
  const set = (patch: Stove) => id.value && (all.value = { ...all.value, [id.value]: { ...stove.value, ...patch } })
  useIntervalFn(() => {
    nowMs.value = Date.now()
    for (const [key, s] of Object.entries(all.value)) {
      if (!s.ringAt || s.ringAt > nowMs.value) continue
      all.value = { ...all.value, [key]: { ...s, ringAt: undefined } }
      ring()
    }
  }, 500)
  const boils = computed(() => stove.value.boilsSince !== undefined && stove.value.off === undefined)
  /** ms since it began to boil, until it came off. */
  const boiled = computed(() => (stove.value.boilsSince === undefined ? 0 : (stove.value.off ?? nowMs.value) - stove.value.boilsSince))
  const ringsIn = computed(() => (stove.value.ringAt ? Math.max(0, stove.value.ringAt - nowMs.value) : undefined))
  const start = () => set({ boilsSince: Date.now(), off: undefined, ringAt: undefined })
  const stop = () => set({ off: Date.now(), ringAt: undefined })
  const clear = () => id.value && (all.value = Object.fromEntries(Object.entries(all.value).filter(([k]) => k !== id.value)))
  const ringIn = (minutes: number) => set({ ringAt: Date.now() + minutes * 60_000 })
  return { boils, boiled, ringsIn, over: computed(() => stove.value.off !== undefined), start, stop, clear, ringIn }
}
