import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { api, got, said, faultsOf, type Schemas } from '@/api/client'
import { useCatchUp } from '@/parts/catchUp'
import { follow } from '@/parts/settings'

export type Own = Schemas['OwnKitchen']
export type KitchenForm = Schemas['KitchenForm']

/** What the cook works with; one for the whole database. */
export const useKitchen = defineStore('kitchen', () => {
  const own = ref<Own>()
  const revision = ref(0)
  const form = shallowRef<KitchenForm>() // limits of the figures, and new things
  const trouble = ref<string>()
  const faults = ref<Record<string, string>>({}) // sentence by JSON Pointer, without its first slash

  async function load() {
    try {
      take(await got(api.GET('/kitchen')))
    } catch (e) {
      trouble.value = said(e)
    }
  }

  function take(saved: Schemas['SavedKitchen']) {
    own.value = saved.document
    revision.value = saved.revision
    form.value = saved.form
    trouble.value = undefined
    faults.value = {}
    follow(saved.document, saved.revision)
  }

  /** Saves; false with the faults at their fields when the program refuses. */
  async function save(document: Own) {
    try {
      take(await got(api.PUT('/kitchen', { params: { header: { 'If-Match': `"${revision.value}"` } }, body: document })))
      return true
    } catch (e) {
      faults.value = faultsOf(e)
      trouble.value = faults.value['']
      return false
    }
  }

  useCatchUp(trouble, () => own.value ?? load())

  return { own, revision, form, trouble, faults, load, save }
})
