import { useEventListener } from '@vueuse/core'
import type { Ref } from 'vue'

const decidedAfterPx = 8 // of a finger's way, before which nobody knows where it goes

/**
 * A track that a finger drags sideways and scrolls over otherwise: the slider inside never hears the finger, so
 * that whoever scrolls the page changes nothing. The share of the track under the finger goes to `at`.
 * The track needs `touch-action: pan-y`.
 */
export function useSidewaysTouch(track: Ref<HTMLElement | undefined>, at: (share: number) => void) {
  let from: { x: number; y: number } | undefined
  let drags = false
  useEventListener(
    track,
    'touchstart',
    (e) => {
      e.stopPropagation()
      const t = e.touches[0]!
      from = { x: t.clientX, y: t.clientY }
      drags = false
    },
    { capture: true, passive: true },
  )
  useEventListener(
    track,
    'touchmove',
    (e) => {
      const t = e.touches[0]!
      if (!from || !track.value) return
      const [dx, dy] = [Math.abs(t.clientX - from.x), Math.abs(t.clientY - from.y)]
      if (!drags && Math.max(dx, dy) < decidedAfterPx) return
      drags ||= dx > dy
      if (!drags) {
        from = undefined // it scrolls
        return
      }
      if (e.cancelable) e.preventDefault()
      const box = track.value.getBoundingClientRect()
      at(Math.min(1, Math.max(0, (t.clientX - box.left) / box.width)))
    },
    { capture: true, passive: false },
  )
}
