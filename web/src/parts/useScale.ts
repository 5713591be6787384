import { createSharedComposable, useEventSource } from '@vueuse/core'
import { computed, shallowRef, watch } from 'vue'
import { api, said, signedOut, unreachable, type Schemas } from '@/api/client'

export type ScaleState = Schemas['ScaleState']

/** The kitchen scale, live; one stream however many parts of the page look at it. */
export const useScale = createSharedComposable(() => {
  const failed = shallowRef('')
  const { data, status, error, eventSource, open } = useEventSource('/api/v1/devices/scale/events', ['scale'] as const)
  const scale = computed(() => (data.value ? (JSON.parse(data.value) as ScaleState) : undefined))
  /** A stream that was refused is closed: there is no scale. One that broke is tried again by the browser. */
  const none = computed(() => status.value === 'CLOSED' && !!error.value && eventSource.value?.readyState === EventSource.CLOSED)
  const trouble = computed(() => failed.value || (error.value && !none.value && status.value !== 'OPEN' ? unreachable : ''))

  watch(signedOut, (out) => !out && open())

  async function tell(command: Promise<unknown>) {
    try {
      await command
      failed.value = ''
    } catch (e) {
      failed.value = said(e)
    }
  }
  const tare = () => tell(api.POST('/devices/scale/tare'))
  /** Puts a load on a simulated scale. */
  const load = (grams: number) => tell(api.POST('/devices/scale/load', { body: { grams } }))
  return { scale, none, trouble, tare, load }
})
