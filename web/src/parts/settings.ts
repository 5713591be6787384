import { useLocalStorage } from '@vueuse/core'
import { watchEffect } from 'vue'

/** What this tablet prefers; none of it changes a recipe. */
export const unitsShown = useLocalStorage<'grams' | 'cups'>('ladle.units', 'grams')
export const shift = useLocalStorage<'day' | 'early'>('ladle.shift', 'day')
export const letterKeys = useLocalStorage('ladle.letterKeys', true)

watchEffect(() => {
  if (shift.value === 'early') document.documentElement.dataset.shift = 'early'
  else delete document.documentElement.dataset.shift
})
