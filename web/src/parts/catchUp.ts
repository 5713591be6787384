import { onScopeDispose, watch, type Ref } from 'vue'
import { useEventListener } from '@vueuse/core'
import { signedOut, unreachable } from '@/api/client'

const everyMs = 2000

/**
 * While the program does not answer, it is asked again now and then; once it does, everything is as if nothing had
 * been. What was refused for want of the passcode is asked again when it was given.
 */
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
  watch(signedOut, (out) => !out && trouble.value && void ask())
  useEventListener(window, 'online', () => trouble.value === unreachable && void ask())
  onScopeDispose(() => clearTimeout(timer))
}
