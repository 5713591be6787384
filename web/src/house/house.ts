import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { api, got, said, type Schemas } from '@/api/client'
import { useCatchUp } from '@/parts/catchUp'

export type House = Schemas['House']

/** How other tablets come in, which are in, and the links for guests. */
export const useHouse = defineStore('house', () => {
  const house = shallowRef<House>()
  const trouble = ref<string>()

  async function load() {
    try {
      house.value = await got(api.GET('/house'))
      trouble.value = undefined
    } catch (e) {
      trouble.value = said(e)
    }
  }
  useCatchUp(trouble, load)

  return { house, trouble, load }
})

export const day = (at: string) => new Date(at).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' })
