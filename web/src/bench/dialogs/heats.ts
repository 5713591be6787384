import { ask } from '@/parts/ask'
import { api, got, type ListItem } from '@/api/client'

/** How hot and how long, for cards that came into sight: asked for one after the other, once for each state. */
const known = new Map<string, Promise<string>>()
let last: Promise<unknown> = Promise.resolve()

/** What is not wanted any more when its turn comes, because it is being put aside, is not asked for. */
export function heatOf(v: Pick<ListItem, 'id' | 'revision'>, wanted: () => boolean): Promise<string> {
  const key = `${v.id}:${v.revision}`
  let answer = known.get(key)
  if (!answer) {
    answer = last.then(() => (wanted() ? leadOf(v.id) : Promise.reject(new Error('not wanted')))).catch(() => (known.delete(key), ''))
    known.set(key, answer)
    last = answer
  }
  return answer
}
async function leadOf(id: string) {
  const { document } = await got(api.GET('/variations/{id}', { params: { path: { id } } }))
  const sheet = await ask('/worksheets', document, { include: ['heat_line'] })
  return sheet.cook?.lead ?? ''
}
