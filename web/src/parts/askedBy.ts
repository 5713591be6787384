import { watch, type Ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

/** Whoever comes by an address that asks for it finds a door open; the address is tidied. */
export function useAskedBy(name: string, open: Ref<boolean>) {
  const route = useRoute()
  const router = useRouter()
  watch(
    () => route.query[name],
    (asked) => {
      if (asked === undefined) return
      open.value = true
      void router.replace({ query: { ...route.query, [name]: undefined } })
    },
    { immediate: true },
  )
}
