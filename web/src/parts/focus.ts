import { nextTick } from 'vue'

/** After something is gone from a list: the focus goes to what came into its place, else to what adds to the list. */
export async function focusNear(rows: string, index: number, otherwise: string) {
  await nextTick()
  const all = document.querySelectorAll<HTMLElement>(rows)
  const next = all[Math.min(index, all.length - 1)] ?? document.querySelector<HTMLElement>(otherwise)
  next?.focus({ preventScroll: false })
}
