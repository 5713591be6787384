import createClient, { type Middleware } from 'openapi-fetch'
import { shallowRef } from 'vue'
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

/** What to tell the cook when a request did not even reach the program. */
export const unreachable = 'The program does not answer. Your work stays on this screen and is sent when it is back.'

/** Whether this kitchen asks this tablet for its passcode; what is on the screen waits for it. */
export const signedOut = shallowRef(false)

/** A refusal of the program, or its silence (status 0), in a sentence for the cook. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly problem?: Partial<Problem>,
  ) {
    super(
      status === 0
        ? unreachable
        : (problem?.errors?.[0]?.message ?? problem?.detail ?? 'The program could not do that. Nothing was lost; try again.'),
    )
  }

  /** Whether the tablet has to give the passcode first. */
  get isOutside() {
    return this.problem?.type === 'tag:upbeat-ladle:signed_out'
  }

  /** Whether it may be sent again as it is, later. */
  get passes() {
    return this.status === 0 || this.status === 408 || this.status === 503 || this.isOutside
  }

  /** Sentences that belong to a field, by its JSON Pointer without the first slash. */
  get fields(): Record<string, string> {
    return Object.fromEntries((this.problem?.errors ?? []).map((e) => [e.pointer.replace(/^\//, ''), e.message]))
  }
}

async function refused(response: Response) {
  const refusal = new Refusal(response.status, (await response.json().catch(() => undefined)) as Problem | undefined)
  if (refusal.isOutside) signedOut.value = true
  return refusal
}

/** Every answer that is no success becomes a Refusal; nobody else looks at a status. */
const refusals: Middleware = {
  async onResponse({ response }) {
    if (!response.ok) throw await refused(response)
  },
  onError: () => new Refusal(0),
}

export const api = createClient<paths>({ baseUrl: '/api/v1', fetch: (request) => fetch(request) })
api.use(refusals)

/** The data of an answer; a refusal is thrown. */
export async function got<T>(call: Promise<{ data?: T }>): Promise<T> {
  return (await call).data as T
}

/** The same for what the contract's client does not send: files. */
export async function sent(path: string, init: RequestInit): Promise<Response> {
  const response = await fetch(`/api/v1${path}`, init).catch(() => {
    throw new Refusal(0)
  })
  if (!response.ok) throw await refused(response)
  return response
}

/** What to tell the cook of something that was thrown. */
export const said = (e: unknown): string => (e instanceof Error ? e.message : String(e))

/** The same by field; what belongs to no field stands under the empty name. */
export const faultsOf = (e: unknown): Record<string, string> => (e instanceof Refusal && Object.keys(e.fields).length ? e.fields : { '': said(e) })

/** A key that makes a repeated save the same save; also where there is no secure page. */
export const newKey = (): string => Array.from(crypto.getRandomValues(new Uint8Array(16)), (b) => b.toString(16).padStart(2, '0')).join('')

/** Answers may overtake each other: the one to the latest question comes back, any other is undefined. */
export function useLatest() {
  let asked = 0
  return async <T>(answer: Promise<T>): Promise<T | undefined> => {
    const mine = ++asked
    try {
      const value = await answer
      return mine === asked ? value : undefined
    } catch (e) {
      if (mine === asked) throw e
      return undefined
    }
  }
}
