import { useCatchUp } from '@/parts/catchUp'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { asItWillBe, bringBack, deliver, onLanded, putAside } from '@/away/outbox'
import { api, got, said, type Ingredient, type Schemas } from '@/api/client'

export type Base = Schemas['Base']
export type Shelved = Schemas['ShelvedBase']
export type Fingerprint = Schemas['Fingerprint']

/** A base as a variation without additions: what swapping, scaling and comparing take. */
export const asVariation = (b: Base): Schemas['Variation'] => ({
  format: 'upbeat-ladle/variation',
  version: 1,
  name: b.name || 'Base',
  form: b.form,
  parts: b.parts,
  base: {
    name: b.name || 'Base',
    style: b.style,
    school: b.school,
    lines: b.lines.map((l, i) => ({ ...l, id: l.id ?? `b${i + 1}` })),
    source_note: b.source_note,
  },
})

/** The shelf of bases, each with its fingerprint. */
export const useBases = defineStore('bases', () => {
  const there = shallowRef<Shelved[]>([]) // as the program has them
  const path = (id: string) => `/bases/${id}`
  const shelf = computed(() =>
    asItWillBe(
      there.value,
      (b) => path(b.id),
      (b, document) => ({ ...b, document: document as Base }),
    ),
  )
  const trouble = ref<string>()
  const loaded = ref(false)
  const ingredients = shallowRef<Ingredient[]>([])

  async function load() {
    try {
      there.value = (await got(api.GET('/bases-shelf'))).items
      trouble.value = undefined
      loaded.value = true
    } catch (e) {
      trouble.value = said(e)
    }
  }
  /** Everything that a line can be; asked for once a dialog needs it. */
  async function loadIngredients() {
    if (ingredients.value.length) return
    try {
      ingredients.value = (await got(api.GET('/ingredients', { params: { query: { limit: 500 } } }))).items
    } catch (e) {
      trouble.value = said(e)
    }
  }
  async function addStarter() {
    const { added } = await got(api.POST('/bases-starter'))
    await load()
    return added
  }
  const what = (document: Base) => `the base “${document.name}”`
  async function create(document: Base) {
    const sent = await deliver<Schemas['SavedBase']>({ what: `${what(document)}, new`, method: 'POST', path: '/bases', body: document })
    if (sent.landed) await load()
    return sent
  }
  async function put(id: string, document: Base, revision: number) {
    const sent = await deliver<Schemas['SavedBase']>({ what: what(document), method: 'PUT', path: path(id), revision, body: document })
    if (sent.landed) await load()
    return sent
  }
  async function remove(id: string) {
    const what = `the base “${shelf.value.find((b) => b.id === id)?.document.name ?? ''}”`
    if ((await putAside(path(id), what)).landed) await load()
    return async () => {
      if ((await bringBack(path(id), what)).landed) await load()
    }
  }
  useCatchUp(trouble, load)
  onLanded((l) => l.path.startsWith('/bases') && loaded.value && load())
  return { shelf, trouble, loaded, ingredients, load, loadIngredients, addStarter, create, put, remove }
})
