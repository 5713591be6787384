import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { deliver, onLanded, waitingFor, type Delivered } from '@/away/outbox'
import { api, got, said, Refusal, type Schemas } from '@/api/client'
import { useCatchUp } from '@/parts/catchUp'
import { follow } from '@/parts/settings'

export type Own = Schemas['OwnKitchen']
/** The kitchen as what is saved of it. */
type KeptKitchen = Schemas['SavedKitchen'] & { id: string }
export type KitchenForm = Schemas['KitchenForm']

/** What the cook works with; one for the whole database. */
export const useKitchen = defineStore('kitchen', () => {
  const own = ref<Own>()
  const revision = ref(0)
  const form = shallowRef<KitchenForm>() // limits of the figures, and new things
  const trouble = ref<string>()

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
    follow(saved.document, saved.revision)
  }

  /** Sends it over a revision. While the program is away, the change waits; what another tablet saved meanwhile comes with the refusal. */
  async function put(document: Own, over = revision.value): Promise<Delivered<KeptKitchen>> {
    try {
      const sent = await deliver<Schemas['SavedKitchen']>({ what: 'the kitchen', method: 'PUT', path: '/kitchen', revision: over, body: document })
      if (!sent.landed) {
        own.value = document
        trouble.value = undefined
        return sent
      }
      take(sent.answer)
      return { landed: true, answer: { id: 'kitchen', ...sent.answer } }
    } catch (e) {
      if (!(e instanceof Refusal) || e.status !== 409) throw e
      const current = { id: 'kitchen', ...(await got(api.GET('/kitchen'))) }
      throw new Refusal(409, { ...e.problem, current, yours: document } as Refusal['problem'])
    }
  }
  /** Saves what somebody else than the Kitchen's form changed of it; false when it could not be. */
  async function save(document: Own) {
    try {
      await put(document)
      return true
    } catch (e) {
      trouble.value = said(e)
      return false
    }
  }

  useCatchUp(trouble, () => own.value ?? load())
  onLanded((l, answer) => l.path === '/kitchen' && take(answer as Schemas['SavedKitchen']))
  return { own, revision, form, trouble, load, put, save }
})
