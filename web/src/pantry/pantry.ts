import { useCatchUp } from '@/parts/catchUp'
import { useSaved, type Kept } from '@/parts/useSaved'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { asItWillBe, bringBack, deliver, onLanded, putAside as setAside } from '@/away/outbox'
import { api, got, said, useLatest, type Ingredient, type Schemas } from '@/api/client'

export type Item = Schemas['PantryItem']
export type Listed = Schemas['PantryListItem']
export type Detail = Schemas['IngredientDetail']

/** The shelf as it is searched, the cook's own items, and the ingredient that is looked at. */
export const usePantry = defineStore('pantry', () => {
  const found = shallowRef<Ingredient[]>([])
  const there = shallowRef<Listed[]>([]) // as the program has them
  const path = (id: string) => `/pantry/${id}`
  const items = computed(() =>
    asItWillBe(
      there.value,
      (i) => path(i.id),
      (i, item) => ({ ...i, item: item as Item }),
    ),
  )
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
      there.value = all.items
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
    const sent = await deliver<Schemas['SavedPantryItem']>({
      what: `“${item.name}” in the pantry`,
      method: 'POST',
      path: '/pantry',
      body: asDocument(item),
    })
    if (sent.landed) await moved(item.stands_for ?? sent.answer.document.id)
    return sent
  }
  const kept = useSaved<Item>({
    send: (id, item, revision) =>
      deliver<Kept<Item>>({ what: `“${item.name}” in the pantry`, method: 'PUT', path: path(id), revision, body: asDocument(item) }),
    saved: () => void moved(),
  })
  /** Saves what was changed of one; what became of it. */
  const change = (listed: Listed, patch: Partial<Item>) => kept.keep({ ...listed, document: listed.item }, { ...listed.item, ...patch })
  /** Another tablet changed it too. */
  async function settle(side: 'mine' | 'theirs') {
    kept.settle(side)
    await kept.save()
    await moved()
  }
  /** Puts an item aside; the answer brings it back. */
  async function remove(listed: Listed) {
    const sent = await setAside(path(listed.id), `“${listed.item.name}”`)
    if (!listed.item.stands_for) detail.value = undefined
    if (sent.landed) await moved()
    return async () => {
      if ((await bringBack(path(listed.id), `“${listed.item.name}”`)).landed) await moved(listed.own.ingredient)
    }
  }

  /** The same for one that cannot be used. */
  async function putAside(id: string) {
    const what = troubled.value.find((t) => t.id === id)?.name ?? 'an item of the pantry'
    if ((await setAside(path(id), what)).landed) await moved()
    return async () => {
      if ((await bringBack(path(id), what)).landed) await moved()
    }
  }

  useCatchUp(trouble, () => moved())
  onLanded((l) => l.path.startsWith('/pantry') && loaded.value && moved())
  return {
    found,
    items,
    troubled,
    detail,
    wanted,
    trouble,
    query,
    group,
    loaded,
    search,
    refresh,
    look,
    moved,
    create,
    change,
    conflict: kept.conflict,
    settle,
    remove,
    putAside,
  }
})
