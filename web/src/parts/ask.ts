import { api, got } from '@/api/client'
import type { paths } from '@/api/schema'

/** What is worked out and not saved: the contract's questions. */
export type Question =
  | '/amounts'
  | '/comparisons'
  | '/correction'
  | '/eggs'
  | '/fingerprints'
  | '/first-pieces'
  | '/labels'
  | '/loads'
  | '/measurements'
  | '/plain-bases'
  | '/preparations'
  | '/pulling'
  | '/readings'
  | '/sauce'
  | '/scalings'
  | '/simulations'
  | '/swaps'
  | '/toppings'
  | '/worksheets'

type Post<Q extends Question> = paths[Q]['post']
export type Wish<Q extends Question> = Post<Q> extends { requestBody: { content: { 'application/json': infer B } } } ? B : never
export type Answer<Q extends Question> = Post<Q> extends { responses: { 200: { content: { 'application/json': infer A } } } } ? A : never

export interface AskOptions {
  include?: (string | false | undefined)[] // what is worked out only when it is asked for
  signal?: AbortSignal
}

/** Asks the program a question; a refusal is thrown. */
export function ask<Q extends Question>(question: Q, wish: Wish<Q>, o: AskOptions = {}): Promise<Answer<Q>> {
  const include = o.include?.filter(Boolean).join(',') || undefined
  // One type for all questions is more than the client's overloads can tell apart.
  const post = api.POST as (path: string, init: object) => Promise<{ data?: Answer<Q> }>
  return got(post(question, { body: wish, params: { query: { include } }, signal: o.signal }))
}
