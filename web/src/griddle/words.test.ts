import { describe, expect, it } from 'vitest'
import { keyOf } from './board'
import { stands } from './words'

const at = (s: number) => new Date(s * 1000).toISOString()

describe('how something at the board stands', () => {
  const flip = { due_at: at(100), by_at: at(120) }
  it('counts down until it is due, then says how long it can wait, then how late it is', () => {
    expect(stands(flip, 59_000)).toEqual({ state: 'ahead', says: '0:41' })
    expect(stands(flip, 108_000)).toEqual({ state: 'due', says: 'can wait 12 s' })
    expect(stands(flip, 119_500)).toEqual({ state: 'due', says: 'now' })
    expect(stands(flip, 138_000)).toEqual({ state: 'late', says: '0:18 late' })
  })
  it('is due at any time when it has none, and never late without an end', () => {
    expect(stands({}, 0)).toEqual({ state: 'due', says: '' })
    expect(stands({ due_at: at(5) }, 9_000_000)).toEqual({ state: 'due', says: 'now' })
  })
})

describe('what was pressed is known again', () => {
  it('by its portion, or by its plate, place and bowl', () => {
    expect(keyOf({ kind: 'flipped', portion: 'p1', of: 'b' })).toBe(keyOf({ kind: 'flipped', portion: 'p1' }))
    expect(keyOf({ kind: 'poured', plate: 'plate', place: 1, of: 'b' })).not.toBe(keyOf({ kind: 'poured', plate: 'plate', place: 2, of: 'b' }))
    expect(keyOf({ kind: 'flipped', portion: 'p1' })).not.toBe(keyOf({ kind: 'lifted', portion: 'p1' }))
  })
})
