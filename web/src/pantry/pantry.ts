import { useCatchUp } from '@/parts/catchUp'
import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { api, got, newKey, said, useLatest, type Ingredient, type Schemas } from '@/api/client'

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

  const latestSearch = useLatest()
  async function search() {
    const onlyMine = group.value === 'mine'
    try {
      const answer = await latestSearch(
        got(
          api.GET('/ingredients', { params: { query: { q: query.value, group: onlyMine || group.value === 'all' ? '' : group.value, limit: 500 } } }),
        ),
      )
      if (!answer) return
      trouble.value = undefined
      found.value = answer.items.filter((i) => !onlyMine || i.own)
      loaded.value = true
    } catch (e) {
      trouble.value = said(e)
    }
  }
  async function refresh() {
    try {
      const all = await got(api.GET('/pantry'))
      items.value = all.items
      troubled.value = all.troubled
    } catch (e) {
      trouble.value = said(e)
    }
  }
  const latestLook = useLatest()
  async function look(id: string) {
    wanted.value = id
    try {
      detail.value = (await latestLook(got(api.GET('/ingredients/{id}', { params: { path: { id } } })))) ?? detail.value
    } catch (e) {
      trouble.value = said(e)
    }
  }
  /** Everything that an item may have moved. */
  async function moved(id?: string) {
    await Promise.all([search(), refresh()])
    if (id ?? detail.value) await look(id ?? detail.value!.ingredient.id)
  }

  const asDocument = (item: Item) => ({ ...item, format: 'upbeat-ladle/pantry-item' as const, version: 1 as const })
  async function create(item: Item) {
    const saved = await got(api.POST('/pantry', { params: { header: { 'Idempotency-Key': newKey() } }, body: asDocument(item) }))
    await moved(item.stands_for ?? saved.document.id)
  }
  async function change(listed: Listed, patch: Partial<Item>) {
    await api.PUT('/pantry/{id}', {
      params: { path: { id: listed.id }, header: { 'If-Match': `"${listed.revision}"` } },
      body: asDocument({ ...listed.item, ...patch }),
    })
    await moved()
  }
  /** Puts an item aside; the answer brings it back. */
  async function remove(listed: Listed) {
    await api.DELETE('/pantry/{id}', { params: { path: { id: listed.id } } })
    if (!listed.item.stands_for) detail.value = undefined
    await moved()
    return async () => {
      await api.POST('/pantry/{id}/restore', { params: { path: { id: listed.id } } })
      await moved(listed.own.ingredient)
    }
  }

  /** The same for one that cannot be used. */
  async function putAside(id: string) {
    await api.DELETE('/pantry/{id}', { params: { path: { id } } })
    await moved()
    return async () => {
      await api.POST('/pantry/{id}/restore', { params: { path: { id } } })
      await moved()
    }
  }

  useCatchUp(trouble, () => moved())
  return { found, items, troubled, detail, wanted, trouble, query, group, loaded, search, refresh, look, moved, create, change, remove, putAside }
})
