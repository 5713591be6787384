import { ask } from '@/parts/ask'
import { useCatchUp } from '@/parts/catchUp'
import { useAsked } from '@/parts/useAsked'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { deliver } from '@/away/outbox'
import { api, got, said, type Schemas } from '@/api/client'

export type Bench = Schemas['PreparationBench']
export type Preparation = Schemas['Preparation']
export type Wish = Schemas['PreparationWish']
export type Flow = Schemas['Flow']

/** One preparation on the bench: what the cook says of it, and what the program makes of that. */
export const usePrep = defineStore('prep', () => {
  const benches = shallowRef<Bench[]>([])
  const wish = ref<Wish>({ method: 'puree', from: 'beetroot_grated' }) // something to look at; the bench says how it starts
  const question = useAsked(() => ask('/preparations', wish.value))
  const { answer: result, faults } = question
  const unlisted = ref<string>() // why there are no benches
  const trouble = computed(() => unlisted.value ?? question.trouble.value)
  const bench = computed(() => benches.value.find((b) => b.method === wish.value.method))
  const asks = computed(() => new Set(bench.value?.asks))
  const back = computed(() => wish.value.want_g !== undefined)

  async function load() {
    try {
      benches.value = (await got(api.GET('/preparations'))).items
      unlisted.value = undefined
      if (!result.value) pick(wish.value.method)
      await work()
    } catch (e) {
      unlisted.value = said(e)
    }
  }

  const work = question.now
  watch(wish, () => void question.soon(), { deep: true })

  /** Takes another preparation, with an ingredient that suits it. */
  function pick(method: string, from?: string) {
    const to = benches.value.find((b) => b.method === method)
    const fits = (id?: string) => to?.from.some((f) => f.id === id)
    const id = fits(from) ? from! : fits(wish.value.from) ? wish.value.from : (to?.from[0]?.id ?? wish.value.from)
    result.value = undefined
    wish.value = { method, from: id, ...to?.start } as Wish
  }

  /** What was measured belongs to the thing that was measured. */
  function change(patch: Partial<Wish>) {
    const next = { ...wish.value, ...patch }
    if (patch.from !== undefined || patch.want_g !== undefined) {
      delete next.after_g
      delete next.brix
      delete next.sample_c
      delete next.cook
    }
    wish.value = Object.fromEntries(Object.entries(next).filter(([, v]) => v !== undefined && v !== null)) as Wish
  }
  function turn(to: 'have' | 'want') {
    const g = wish.value.have_g ?? wish.value.want_g ?? result.value?.before_g ?? bench.value?.start.have_g
    if (to === 'want') change({ have_g: undefined, count: undefined, want_g: result.value?.want_g ?? g })
    else if (asks.value.has('count')) change({ want_g: undefined, count: bench.value?.start.count })
    else change({ want_g: undefined, have_g: result.value?.have_g ?? g })
  }

  /** Keeps what is in the tub. */
  async function keep(item: Schemas['PantryItem']) {
    return deliver({
      what: `“${item.name}” in the pantry`,
      method: 'POST',
      path: '/pantry',
      body: { ...item, format: 'upbeat-ladle/pantry-item', version: 1 },
    })
  }

  useCatchUp(unlisted, load)
  return { benches, bench, asks, wish, result, trouble, faults, back, load, work, pick, change, turn, keep }
})
