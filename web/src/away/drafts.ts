import { shallowRef } from 'vue'
import { api, got, Refusal, type Variation } from '@/api/client'

/** Work on a variation that was not sent yet, so that a closed tab loses nothing. */
export interface Draft {
  revision: number // that it was made from
  doc: Variation
}
const prefix = 'ladle.draft.'
const localPrefix = 'new-'

/** A variation that was begun while the program was away is called by its letter until it lands. */
export const localId = (key: string) => localPrefix + key
export const isLocal = (id: string | undefined) => !!id?.startsWith(localPrefix)
export const keyOf = (local: string) => local.slice(localPrefix.length)

export function draftOf(id: string): Draft | undefined {
  try {
    return JSON.parse(localStorage.getItem(prefix + id) ?? 'null') ?? undefined
  } catch {
    return undefined // not ours
  }
}
export const keepDraft = (id: string, draft: Draft) => localStorage.setItem(prefix + id, JSON.stringify(draft))
export const dropDraft = (id: string) => localStorage.removeItem(prefix + id)

/** What those that were begun while the program was away are called since they landed. */
const landedKey = 'ladle.landed'
const landedKept = 50
function landings(): [string, string][] {
  try {
    return JSON.parse(localStorage.getItem(landedKey) ?? '[]')
  } catch {
    return []
  }
}
export const noteLanded = (local: string, id: string) =>
  localStorage.setItem(landedKey, JSON.stringify([...landings(), [local, id]].slice(-landedKept)))
export const landedAs = (local: string) => landings().find(([l]) => l === local)?.[1]

/** Drafts of variations that are not on the bench, by their names. */
export const elsewhere = shallowRef<{ id: string; name: string }[]>([])
function ids() {
  return Object.keys(localStorage).flatMap((k) => (k.startsWith(prefix) ? [k.slice(prefix.length)] : []))
}
export function lookElsewhere(open: string | undefined) {
  elsewhere.value = ids().flatMap((id) => (id === open || isLocal(id) ? [] : [{ id, name: draftOf(id)?.doc.name ?? '' }]))
}

/**
 * Sends the drafts of variations that are not on the bench. One that another tablet changed meanwhile stays, and is
 * asked about when it is opened.
 */
export async function sendElsewhere(open: string | undefined) {
  for (const id of ids()) {
    const draft = draftOf(id)
    if (id === open || isLocal(id) || !draft) continue
    try {
      await got(api.PUT('/variations/{id}', { params: { path: { id }, header: { 'If-Match': `"${draft.revision}"` } }, body: draft.doc }))
      dropDraft(id)
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
export function lastSeen<S>(): Last<S> | undefined {
  try {
    return JSON.parse(localStorage.getItem(lastKey) ?? 'null') ?? undefined
  } catch {
    return undefined
  }
}
