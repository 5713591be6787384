import { defineStore } from 'pinia'
import { ref } from 'vue'
import { api, sentence, unreachable, type Problem, type Schemas } from '@/api/client'
import { letterKeys, unitsShown } from '@/parts/settings'

export type Own = Schemas['OwnKitchen']

/** What the cook works with; one for the whole database. */
export const useKitchen = defineStore('kitchen', () => {
  const own = ref<Own>()
  const revision = ref(0)
  const trouble = ref<string>()
  const faults = ref<Record<string, string>>({}) // sentence by JSON Pointer

  async function load() {
    try {
      const { data, error } = await api.GET('/kitchen')
      if (!data) {
        trouble.value = sentence(error)
        return
      }
      take(data)
    } catch {
      trouble.value = unreachable
    }
  }

  function take(saved: Schemas['SavedKitchen']) {
    own.value = saved.document
    revision.value = saved.revision
    trouble.value = undefined
    faults.value = {}
    if (saved.document.units) unitsShown.value = saved.document.units
    if (saved.document.letter_keys !== undefined) letterKeys.value = saved.document.letter_keys
  }

  /** Saves; false with the faults at their fields when the program refuses. */
  async function save(document: Own) {
    try {
      const { data, error } = await api.PUT('/kitchen', { params: { header: { 'If-Match': `"${revision.value}"` } }, body: document })
      if (data) {
        take(data)
        return true
      }
      const p = error as Problem
      faults.value = Object.fromEntries((p.errors ?? []).map((e) => [e.pointer, e.message]))
      trouble.value = p.errors?.length ? undefined : sentence(error)
    } catch {
      trouble.value = unreachable
    }
    return false
  }

  return { own, revision, trouble, faults, load, save }
})
