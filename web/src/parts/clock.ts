/** Formatting of times for a kitchen: what is left, and the clock on the wall. */

/** "14:59" in minutes and seconds; a minus in front once it is over. */
export function countdown(ms: number): string {
  const s = Math.abs(Math.ceil(ms / 1000))
  return `${ms < 0 && s > 0 ? '−' : ''}${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`
}

/** "8:41" of the clock on the wall. */
export const atClock = (iso: string) => new Date(iso).toLocaleTimeString('en-GB', { hour: 'numeric', minute: '2-digit' })

/** "2026-12-01", where the tablet stands. */
export const today = () => new Date().toLocaleDateString('sv-SE')

/** "3:25" of so many seconds, as a clock shows them. */
export function clock(seconds: number): string {
  const s = Math.round(seconds)
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`
}
