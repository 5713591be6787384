import { ref, watch, type Ref } from 'vue'

/** Whether a door was ever open: what is behind it is fetched and drawn the first time, and stays. */
export function useEverOpen(open: Readonly<Ref<unknown>>) {
  const ever = ref(false)
  watch(open, (now) => now && (ever.value = true), { immediate: true })
  return ever
}
