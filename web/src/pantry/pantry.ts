import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { api, sentence, unreachable, type Ingredient, type Schemas } from '@/api/client'

export type Item = Schemas['PantryItem']
export type Listed = Schemas['PantryListItem']
export type Detail = Schemas['IngredientDetail']

/** The shelf as it is searched, the cook's own items, and the ingredient that is looked at. */
export const usePantry = defineStore('pantry', () => {
  const found = shallowRef<Ingredient[]>([])
  const items = shallowRef<Listed[]>([])
  const troubled = shallowRef<Schemas['PantryTrouble'][]>([]) // what cannot be used as it is
  const detail = shallowRef<Detail>()
  const wanted = ref<string>() // the ingredient that is looked at, or soon will be
  const trouble = ref<string>()
  const query = ref('')
  const group = ref('all')
  const loaded = ref(false)

  let asked = 0
  async function search() {
    const mine = ++asked
    const onlyMine = group.value === 'mine'
    try {
      const { data, error } = await api.GET('/ingredients', { params: { query: { q: query.value, group: onlyMine || group.value === 'all' ? '' : group.value, limit: 500 } } })
      if (mine !== asked) return
      trouble.value = data ? undefined : sentence(error)
      found.value = (data?.items ?? []).filter((i) => !onlyMine || i.own)
      loaded.value = true
    } catch {
      trouble.value = unreachable
    }
  }
  async function refresh() {
    const { data, error } = await api.GET('/pantry')
    if (data) {
      items.value = data.items
      troubled.value = data.troubled
    } else trouble.value = sentence(error)
  }
  let looked = 0 // answers may overtake each other; only the latest look counts
  async function look(id: string) {
    const mine = ++looked
    wanted.value = id
    try {
      const { data, error } = await api.GET('/ingredients/{id}', { params: { path: { id } } })
      if (mine !== looked) return
      if (data) detail.value = data
      else trouble.value = sentence(error)
    } catch {
      trouble.value = unreachable
    }
  }
  /** Everything that an item may have moved. */
  async function moved(id?: string) {
    await Promise.all([search(), refresh()])
    if (id ?? detail.value) await look(id ?? detail.value!.ingredient.id)
  }

  const asDocument = (item: Item) => ({ ...item, format: 'upbeat-ladle/pantry-item' as const, version: 1 as const })
  async function create(item: Item) {
    const { data, error } = await api.POST('/pantry', { params: { header: { 'Idempotency-Key': crypto.randomUUID() } }, body: asDocument(item) })
    if (!data) throw new Error(sentence(error))
    await moved(item.stands_for ?? data.document.id)
  }
  async function change(listed: Listed, patch: Partial<Item>) {
    const { data, error } = await api.PUT('/pantry/{id}', {
      params: { path: { id: listed.id }, header: { 'If-Match': `"${listed.revision}"` } }, body: asDocument({ ...listed.item, ...patch }),
    })
    if (!data) throw new Error(sentence(error))
    await moved()
  }
  /** Puts an item aside; the answer brings it back. */
  async function remove(listed: Listed) {
    const { error } = await api.DELETE('/pantry/{id}', { params: { path: { id: listed.id } } })
    if (error) throw new Error(sentence(error))
    if (!listed.item.stands_for) detail.value = undefined
    await moved()
    return async () => {
      await api.POST('/pantry/{id}/restore', { params: { path: { id: listed.id } } })
      await moved(listed.own.ingredient)
    }
  }

  /** The same for one that cannot be used. */
  async function putAside(id: string) {
    const { error } = await api.DELETE('/pantry/{id}', { params: { path: { id } } })
    if (error) throw new Error(sentence(error))
    await moved()
    return async () => {
      await api.POST('/pantry/{id}/restore', { params: { path: { id } } })
      await moved()
    }
  }

  return { found, items, troubled, detail, wanted, trouble, query, group, loaded, search, refresh, look, moved, create, change, remove, putAside }
})
