import { useCatchUp } from '@/parts/catchUp'
import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { api, got, newKey, Refusal, said, type Ingredient, type Schemas } from '@/api/client'

export type Base = Schemas['Base']
export type Shelved = Schemas['ShelvedBase']
export type Fingerprint = Schemas['Fingerprint']

export const plainBase = (b: Base): Base => JSON.parse(JSON.stringify(b)) as Base

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
  const shelf = shallowRef<Shelved[]>([])
  const trouble = ref<string>()
  const loaded = ref(false)
  const ingredients = shallowRef<Ingredient[]>([])

  async function load() {
    try {
      shelf.value = (await got(api.GET('/bases-shelf'))).items
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
  async function save(document: Base, over?: { id: string; revision: number }) {
    try {
      const saved = await got(
        over
          ? api.PUT('/bases/{id}', { params: { path: { id: over.id }, header: { 'If-Match': `"${over.revision}"` } }, body: document })
          : api.POST('/bases', { params: { header: { 'Idempotency-Key': newKey() } }, body: document }),
      )
      await load()
      return saved
    } catch (e) {
      if (e instanceof Refusal && e.status === 409)
        throw new Error('Another tablet changed this base since you opened it. Nothing was overwritten: close it and open it again.', { cause: e })
      throw e
    }
  }
  async function remove(id: string) {
    await api.DELETE('/bases/{id}', { params: { path: { id } } })
    await load()
    return async () => {
      await api.POST('/bases/{id}/restore', { params: { path: { id } } })
      await load()
    }
  }
  async function fingerprint(document: Base): Promise<Fingerprint | string> {
    try {
      return await got(api.POST('/fingerprints', { body: document }))
    } catch (e) {
      return said(e)
    }
  }
  useCatchUp(trouble, load)
  return { shelf, trouble, loaded, ingredients, load, loadIngredients, addStarter, save, remove, fingerprint }
})
