import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { isLocal } from '@/away/drafts'
import { putAside } from '@/away/outbox'
import { api, got, newKey, said, type Schemas } from '@/api/client'
import { sheetOf } from '@/parts/address'
import { say } from '@/parts/say'
import { useBench } from '@/bench/bench'

/** The bowls of this kitchen that are under way, and the beginning of another. */
export const useMaking = defineStore('making', () => {
  const bench = useBench()
  const router = useRouter()
  const all = shallowRef<Schemas['BatchListItem'][]>([])
  const underWay = computed(() => all.value.filter((b) => !b.made))
  const beginning = ref(false)
  /** Of this variation there is one already: the cook says whether to go on with it. */
  const had = shallowRef<Schemas['BatchListItem']>()

  async function load() {
    try {
      all.value = (await got(api.GET('/batches'))).items
    } catch {
      // The bench goes on without them.
    }
  }
  /** Begins a batch of what is on the bench, or asks when one of it is under way. */
  async function make() {
    if (beginning.value || !bench.doc) return
    beginning.value = true
    try {
      await load()
      had.value = underWay.value.find((b) => b.from && b.from === bench.id)
      if (!had.value) await begin()
    } finally {
      beginning.value = false
    }
  }
  async function begin() {
    const variation = bench.asked()
    if (!variation) return
    had.value = undefined
    const from = bench.id && !isLocal(bench.id) ? { id: bench.id, revision: bench.revision } : undefined
    try {
      const b = await got(
        api.POST('/batches', { params: { header: { 'Idempotency-Key': newKey() } }, body: { variation, ...(from ? { from } : {}) } }),
      )
      await router.push(sheetOf(b.id))
    } catch (e) {
      say(said(e))
    }
  }
  async function goOn(id: string) {
    had.value = undefined
    await router.push(sheetOf(id))
  }
  async function remove(b: Schemas['BatchListItem']) {
    await putAside(`/batches/${b.id}`, b.name)
    all.value = all.value.filter((x) => x.id !== b.id)
  }
  return { all, underWay, had, beginning, load, make, begin, goOn, remove }
})
