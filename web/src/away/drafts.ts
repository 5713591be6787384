import { shallowRef } from 'vue'
import { api, got, Refusal, type Variation } from '@/api/client'
import type { Draft } from '@/parts/useSaved'

/** What this tablet keeps under a name; undefined where there is nothing, or it is not ours. */
export function keptAs<T>(name: string): T | undefined {
  try {
    return JSON.parse(localStorage.getItem(name) ?? 'null') ?? undefined
  } catch {
    return undefined
  }
}

/** Work that was not sent yet, by the id of what it is on, so that a closed tab loses nothing. */
export function draftsOf<D>(prefix: string) {
  return {
    of: (id: string) => keptAs<Draft<D>>(prefix + id),
    keep: (id: string, draft: Draft<D>) => localStorage.setItem(prefix + id, JSON.stringify(draft)),
    drop: (id: string) => localStorage.removeItem(prefix + id),
    ids: () => Object.keys(localStorage).flatMap((k) => (k.startsWith(prefix) ? [k.slice(prefix.length)] : [])),
  }
}
export const drafts = draftsOf<Variation>('ladle.draft.')
const localPrefix = 'new-'

/** A variation that was begun while the program was away is called by its letter until it lands. */
export const localId = (key: string) => localPrefix + key
export const isLocal = (id: string | undefined) => !!id?.startsWith(localPrefix)
export const keyOf = (local: string) => local.slice(localPrefix.length)

/** What those that were begun while the program was away are called since they landed. */
const landedKey = 'ladle.landed'
const landedKept = 50
const landings = () => keptAs<[string, string][]>(landedKey) ?? []
export const noteLanded = (local: string, id: string) =>
  localStorage.setItem(landedKey, JSON.stringify([...landings(), [local, id]].slice(-landedKept)))
export const landedAs = (local: string) => landings().find(([l]) => l === local)?.[1]

/** Drafts of variations that are not on the bench, by their names. */
export const elsewhere = shallowRef<{ id: string; name: string }[]>([])
export function lookElsewhere(open: string | undefined) {
  elsewhere.value = drafts.ids().flatMap((id) => (id === open || isLocal(id) ? [] : [{ id, name: drafts.of(id)?.doc.name ?? '' }]))
}

/**
 * Sends the drafts of variations that are not on the bench. One that another tablet changed meanwhile stays, and is
 * asked about when it is opened.
 */
export async function sendElsewhere(open: string | undefined) {
  for (const id of drafts.ids()) {
    const draft = drafts.of(id)
    if (id === open || isLocal(id) || !draft) continue
    try {
      await got(api.PUT('/variations/{id}', { params: { path: { id }, header: { 'If-Match': `"${draft.revision}"` } }, body: draft.doc }))
      drafts.drop(id)
    } catch (e) {
      if (e instanceof Refusal && e.passes) break
    }
  }
  lookElsewhere(open)
}

/** The bench as it was seen last, so that it opens while the program is away. */
const lastKey = 'ladle.last'
export interface Last<Sheet> {
  id: string
  revision: number
  doc: Variation
  sheet?: Sheet
}
export const keepLast = <S>(last: Last<S>) => localStorage.setItem(lastKey, JSON.stringify(last))
export const forgetLast = () => localStorage.removeItem(lastKey)
export const lastSeen = <S>() => keptAs<Last<S>>(lastKey)
