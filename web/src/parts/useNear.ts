import { ref, type Ref } from 'vue'
import { useIntersectionObserver } from '@vueuse/core'

/** Whether something has come near the window; it stays so. What is far from sight need not be drawn. */
export function useNear(el: Ref<HTMLElement | undefined>) {
  const near = ref(false)
  const { stop } = useIntersectionObserver(
    el,
    (seen) => {
      if (!seen.some((s) => s.isIntersecting)) return
      near.value = true
      stop()
    },
    { rootMargin: '400px 0px' },
  )
  return near
}
