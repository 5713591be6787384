import { useLocalStorage } from '@vueuse/core'
import { watchEffect } from 'vue'

/** What this tablet prefers; none of it changes a recipe. */
export const unitsShown = useLocalStorage<'grams' | 'cups'>('ladle.units', 'grams')
export const shift = useLocalStorage<'day' | 'early'>('ladle.shift', 'day')
export const letterKeys = useLocalStorage('ladle.letterKeys', true)

/** The kitchen that this tablet has followed: its wishes hold until the tablet chooses otherwise. */
const followed = useLocalStorage('ladle.kitchen', 0)

export function follow(wishes: { units?: 'grams' | 'cups'; letter_keys?: boolean }, revision: number) {
  if (followed.value === revision) return
  followed.value = revision
  if (wishes.units) unitsShown.value = wishes.units
  if (wishes.letter_keys !== undefined) letterKeys.value = wishes.letter_keys
}

watchEffect(() => {
  if (shift.value === 'early') document.documentElement.dataset.shift = 'early'
  else delete document.documentElement.dataset.shift
})
