import { countdown } from '@/parts/clock'
import type { IconName } from '@/parts/icons'
import type { Place, Todo } from './board'

export const msOf = (at?: string) => (at ? new Date(at).getTime() : NaN)

/** How something stands in time: late, due and how long it can wait, or still to come. */
export function stands(t: { due_at?: string; by_at?: string }, nowMs: number): { state: 'late' | 'due' | 'ahead'; says: string } {
  const due = msOf(t.due_at)
  const by = msOf(t.by_at)
  if (Number.isNaN(due)) return { state: 'due', says: '' }
  if (nowMs < due) return { state: 'ahead', says: countdown(due - nowMs) }
  if (!Number.isNaN(by) && nowMs > by) return { state: 'late', says: `${countdown(nowMs - by)} late` }
  const can = Number.isNaN(by) ? NaN : Math.floor((by - nowMs) / 1000)
  return { state: 'due', says: can >= 1 ? `can wait ${can} s` : 'now' }
}

const signs: Record<Todo['act'], IconName> = {
  on: 'griddle',
  hot: 'griddle',
  wash: 'drop',
  grease: 'drop',
  turn: 'flame',
  pour: 'pour',
  place: 'down',
  flip: 'flip',
  lift: 'out',
  judge: 'eye',
  stir: 'swap',
  oven: 'kitchen',
  bag: 'fridge',
}
export const signOf = (act: Todo['act']) => signs[act]

const sides: Record<Place['phase'], string> = {
  free: 'pour next',
  waits: 'waits',
  first: 'first side',
  second: 'second side',
  shut: 'closed',
  idle: 'empty',
}
export const sideOf = (p: Place) => sides[p.phase]
