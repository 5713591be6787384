import { onScopeDispose, watch, type Ref } from 'vue'
import { useEventListener } from '@vueuse/core'
import { unreachable } from '@/api/client'

const everyMs = 2000

/** While the program does not answer, it is asked again now and then; once it does, everything is as if nothing had been. */
export function useCatchUp(trouble: Ref<string | undefined>, again: () => unknown) {
  let timer: ReturnType<typeof setTimeout> | undefined
  const later = () => {
    clearTimeout(timer)
    timer = setTimeout(() => void ask(), everyMs)
  }
  async function ask() {
    clearTimeout(timer)
    await again()
    if (trouble.value === unreachable) later()
  }
  watch(trouble, (said) => (said === unreachable ? later() : clearTimeout(timer)), { immediate: true })
  useEventListener(window, 'online', () => trouble.value === unreachable && void ask())
  onScopeDispose(() => clearTimeout(timer))
}
