import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { deliver, onLanded, waitingFor } from '@/away/outbox'
import { api, got, said, faultsOf, Refusal, type Schemas } from '@/api/client'
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
  const conflict = ref(false) // another tablet saved it meanwhile
  const faults = ref<Record<string, string>>({}) // sentence by JSON Pointer, without its first slash

  async function load() {
    try {
      take(await got(api.GET('/kitchen')))
      const waiting = waitingFor('/kitchen')
      if (waiting && !waiting.trouble) own.value = waiting.body as Own
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
    conflict.value = false
    follow(saved.document, saved.revision)
  }

  /** Saves; false with the faults at their fields when the program refuses. While it is away, the change waits. */
  async function save(document: Own) {
    try {
      const sent = await deliver<Schemas['SavedKitchen']>({
        what: 'the kitchen',
        method: 'PUT',
        path: '/kitchen',
        revision: revision.value,
        body: document,
      })
      if (sent.landed) take(sent.answer)
      else {
        own.value = document
        faults.value = {}
        trouble.value = undefined
      }
      return true
    } catch (e) {
      if (e instanceof Refusal && e.status === 409) conflict.value = true
      faults.value = faultsOf(e)
      trouble.value = faults.value['']
      return false
    }
  }

  useCatchUp(trouble, () => own.value ?? load())
  onLanded((l, answer) => l.path === '/kitchen' && take(answer as Schemas['SavedKitchen']))
  /** Saves over what the other tablet saved; that stays among the earlier kitchens. */
  async function saveOver(document: Own) {
    revision.value = (await got(api.GET('/kitchen'))).revision
    return save(document)
  }

  return { own, revision, form, conflict, saveOver, trouble, faults, load, save }
})
