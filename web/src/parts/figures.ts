/** Formatting only: how many decimals a figure has comes from the program. */

/** A mass with the decimals that its scale shows: "296", "7.5", "0.25". */
export function onStep(g: number, decimals: number): string {
  const text = g.toFixed(decimals)
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text
}

/** A figure with fixed decimals, with a real minus sign. */
export function figure(v: number, decimals: number): string {
  const text = Math.abs(v).toFixed(decimals)
  return v < 0 && Number(text) !== 0 ? `−${text}` : text
}

/** A figure of a working, with at most four digits that count. */
export function short(v: number): string {
  return Math.abs(v) >= 1000 ? v.toFixed(0) : String(Number(v.toPrecision(4)))
}

/** "2 minutes ago" for a saved time. */
export function ago(iso: string, now: Date): string {
  const s = (now.getTime() - new Date(iso).getTime()) / 1000
  const format = new Intl.RelativeTimeFormat('en', { numeric: 'auto' })
  for (const [unit, size] of [
    ['day', 86400],
    ['hour', 3600],
    ['minute', 60],
  ] as const) {
    if (s >= size) return format.format(-Math.floor(s / size), unit)
  }
  return 'just now'
}

/** Words that break between their parts only, never between a figure and its unit. */
export function unbroken(text: string | undefined): string {
  return (text ?? '').replace(/ (?=(?:cups?|tbsp|tsp|eggs?|g|ml|mm|meq)\b|°)/g, '\u00a0').replace(/([+]|less) /g, '$1\u00a0')
}

/** When something was saved, for a list of its states. */
export const savedAt = (at: string) =>
  new Date(at).toLocaleString('en-GB', { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit', second: '2-digit' })
