import { describe, expect, it } from 'vitest'
import { clock, countdown } from './clock'
import { hours, ordinal } from '@/sheet/words'

describe('times on the sheet', () => {
  it('count down to the second and on beyond it', () => {
    expect(countdown(15 * 60_000)).toBe('15:00')
    expect(countdown(14 * 60_000 + 59_001)).toBe('15:00')
    expect(countdown(59_000)).toBe('0:59')
    expect(countdown(0)).toBe('0:00')
    expect(countdown(-61_000)).toBe('−1:01')
    expect(clock(205)).toBe('3:25')
    expect(clock(119.7)).toBe('2:00')
    expect(clock(0.2)).toBe('0:00')
  })
  it('tell the clock of a bowl in hours and minutes, never below nothing', () => {
    expect(hours(6 * 60_000)).toBe('0:06')
    expect(hours(125 * 60_000)).toBe('2:05')
    expect(hours(-5000)).toBe('0:00')
  })
  it('count cups', () => {
    expect([1, 3, 10, 11].map(ordinal)).toEqual(['First', 'Third', 'Tenth', '11th'])
  })
})
