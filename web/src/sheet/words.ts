/** Formatting of times and counts on the sheet. */

/** "0:06" in hours and minutes. */
export function hours(ms: number): string {
  const minutes = Math.max(0, Math.floor(ms / 60_000))
  return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`
}

/** "14:59" in minutes and seconds; a minus in front once it is over. */
export function countdown(ms: number): string {
  const s = Math.abs(Math.ceil(ms / 1000))
  return `${ms < 0 && s > 0 ? '−' : ''}${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`
}

/** "8:41" of the clock on the wall. */
export const atClock = (iso: string) => new Date(iso).toLocaleTimeString('en-GB', { hour: 'numeric', minute: '2-digit' })

const ordinals = ['First', 'Second', 'Third', 'Fourth', 'Fifth', 'Sixth', 'Seventh', 'Eighth', 'Ninth', 'Tenth']
export const ordinal = (n: number) => ordinals[n - 1] ?? `${n}th`
