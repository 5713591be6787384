import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { api, sentence, unreachable, type Ingredient, type Schemas } from '@/api/client'

export type Base = Schemas['Base']
export type Shelved = Schemas['ShelvedBase']
export type Fingerprint = Schemas['Fingerprint']

export const plainBase = (b: Base): Base => JSON.parse(JSON.stringify(b)) as Base

/** A base as a variation without additions: what swapping, scaling and comparing take. */
export const asVariation = (b: Base): Schemas['Variation'] => ({
  format: 'upbeat-ladle/variation', version: 1, name: b.name || 'Base', form: b.form,
  base: { name: b.name || 'Base', style: b.style, school: b.school, lines: b.lines.map((l, i) => ({ ...l, id: l.id ?? `b${i + 1}` })), source_note: b.source_note },
})

/** The shelf of bases, each with its fingerprint. */
export const useBases = defineStore('bases', () => {
  const shelf = shallowRef<Shelved[]>([])
  const trouble = ref<string>()
  const loaded = ref(false)
  const ingredients = shallowRef<Ingredient[]>([])

  async function load() {
    try {
      const { data, error } = await api.GET('/bases-shelf')
      trouble.value = data ? undefined : sentence(error)
      if (data) shelf.value = data.items
      loaded.value = true
    } catch {
      trouble.value = unreachable
    }
  }
  /** Everything that a line can be; asked for once a dialog needs it. */
  async function loadIngredients() {
    if (ingredients.value.length) return
    const { data } = await api.GET('/ingredients', { params: { query: { limit: 500 } } })
    ingredients.value = data?.items ?? []
  }
  async function addStarter() {
    const { data, error } = await api.POST('/bases-starter')
    if (!data) throw new Error(sentence(error))
    await load()
    return data.added
  }
  async function save(document: Base, over?: { id: string; revision: number }) {
    const { data, error, response } = over
      ? await api.PUT('/bases/{id}', { params: { path: { id: over.id }, header: { 'If-Match': `"${over.revision}"` } }, body: document })
      : await api.POST('/bases', { params: { header: { 'Idempotency-Key': crypto.randomUUID() } }, body: document })
    if (response.status === 409) throw new Error('Another tablet changed this base since you opened it. Nothing was overwritten: close it and open it again.')
    if (!data) throw Object.assign(new Error(sentence(error)), { problem: error })
    await load()
    return data
  }
  async function remove(id: string) {
    const { error } = await api.DELETE('/bases/{id}', { params: { path: { id } } })
    if (error) throw new Error(sentence(error))
    await load()
    return async () => {
      await api.POST('/bases/{id}/restore', { params: { path: { id } } })
      await load()
    }
  }
  async function fingerprint(document: Base): Promise<Fingerprint | string> {
    try {
      const { data, error } = await api.POST('/fingerprints', { body: document })
      return data ?? sentence(error)
    } catch {
      return unreachable
    }
  }
  return { shelf, trouble, loaded, ingredients, load, loadIngredients, addStarter, save, remove, fingerprint }
})
