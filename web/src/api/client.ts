import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type Variation = Schemas['Variation']
export type Addition = Schemas['Addition']
export type Worksheet = Schemas['Worksheet']
export type SheetLine = Schemas['WorksheetLine']
export type Gauge = Schemas['Gauge']
export type Ingredient = Schemas['Ingredient']
export type ListItem = Schemas['ListItem']
export type Problem = Schemas['Problem']
export type Saved = Schemas['SavedVariation']
export type Conflict = Schemas['VariationConflict']

export const api = createClient<paths>({ baseUrl: '/api/v1' })

/** What to tell the cook when a request did not even reach the program. */
export const unreachable = 'The program does not answer. Your work stays on this screen and is sent when it is back.'

/** The sentence of a failed answer. */
export function sentence(problem: unknown): string {
  const p = problem as Partial<Problem> | undefined
  return p?.errors?.[0]?.message ?? p?.detail ?? 'The program could not do that. Nothing was lost; try again.'
}
