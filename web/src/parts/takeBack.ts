import { useEventListener } from '@vueuse/core'

/** What was just done and can be taken back, the last of it on top. */
const offers: (() => void)[] = []
const writing = 'input:not([type=radio], [type=checkbox]), textarea, [contenteditable]'

/** Offers to take something back by Ctrl+Z; the answer ends the offer. */
export function offerBack(take: () => void) {
  offers.push(take)
  return () => {
    const at = offers.indexOf(take)
    if (at >= 0) offers.splice(at, 1)
  }
}

/** Something was changed since: Ctrl+Z is that change's. */
export const nothingBack = () => void offers.splice(0)

/** Ctrl+Z takes back what was just done, wherever the hands are but in a text. */
export function useTakeBack() {
  useEventListener(
    window,
    'keydown',
    (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.altKey || e.shiftKey || e.key.toLowerCase() !== 'z') return
      if (!offers.length || (e.target instanceof Element && e.target.closest(writing))) return
      offers.pop()!()
      e.preventDefault()
      e.stopImmediatePropagation()
    },
    { capture: true },
  )
}
