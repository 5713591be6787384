import { createSharedComposable, tryOnScopeDispose } from '@vueuse/core'
import { shallowRef } from 'vue'
import { api, sentence, unreachable, type Schemas } from '@/api/client'

export type ScaleState = Schemas['ScaleState']

/** The kitchen scale, live; one stream however many parts of the page look at it. */
export const useScale = createSharedComposable(() => {
  const scale = shallowRef<ScaleState>()
  const none = shallowRef(false) // no scale is connected to the program
  const trouble = shallowRef('')

  const events = new EventSource('/api/v1/devices/scale/events')
  events.addEventListener('scale', (e) => {
    scale.value = JSON.parse(e.data as string) as ScaleState
    none.value = false
    trouble.value = ''
  })
  events.onerror = () => {
    // A stream that was refused is closed; one that broke is tried again by the browser.
    if (events.readyState === EventSource.CLOSED) none.value = true
    else trouble.value = unreachable
  }
  tryOnScopeDispose(() => events.close())

  async function tare() {
    const { error } = await api.POST('/devices/scale/tare')
    trouble.value = error ? sentence(error) : ''
  }
  /** Puts a load on a simulated scale. */
  async function load(grams: number) {
    const { error } = await api.POST('/devices/scale/load', { body: { grams } })
    trouble.value = error ? sentence(error) : ''
  }
  return { scale, none, trouble, tare, load }
})
