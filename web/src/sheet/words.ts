/** Formatting of times and counts on the sheet. */

/** "0:06" in hours and minutes. */
export function hours(ms: number): string {
  const minutes = Math.max(0, Math.floor(ms / 60_000))
  return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`
}

const ordinals = ['First', 'Second', 'Third', 'Fourth', 'Fifth', 'Sixth', 'Seventh', 'Eighth', 'Ninth', 'Tenth']
export const ordinal = (n: number) => ordinals[n - 1] ?? `${n}th`
