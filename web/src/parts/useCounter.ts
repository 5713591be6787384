import { useLocalStorage, useVibrate, useWakeLock } from '@vueuse/core'
import { onMounted, onScopeDispose, ref } from 'vue'

/** How a tablet stands on the counter: the screen stays on, sounds and shakes if that is wished. */
const wished = useLocalStorage('ladle.sound', true)
const shakes = useLocalStorage('ladle.shakes', false)
const notes = { right: [880, 0.12], over: [220, 0.35], rested: [660, 0.5] } as const

export function useCounter() {
  const lock = useWakeLock()
  const { vibrate, isSupported: canShake } = useVibrate()
  let audio: AudioContext | undefined
  /** A page that was loaded anew may not sound before somebody touched it. */
  const silent = ref(true)
  function wake() {
    audio ??= new AudioContext()
    void audio.resume().then(() => (silent.value = audio?.state !== 'running'))
  }
  function sound(note: keyof typeof notes) {
    if (shakes.value && canShake.value) vibrate([120])
    if (!wished.value || !audio || audio.state !== 'running') return
    const [hertz, seconds] = notes[note]
    const tone = audio.createOscillator()
    const gain = audio.createGain()
    gain.gain.setValueAtTime(0.2, audio.currentTime)
    gain.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + seconds)
    tone.frequency.value = hertz
    tone.connect(gain).connect(audio.destination)
    tone.start()
    tone.stop(audio.currentTime + seconds)
  }
  const stayOn = () => void lock.request('screen').catch(() => undefined) // where it may not, the tablet dims as it does
  onMounted(() => {
    stayOn()
    addEventListener('pointerup', wake) // a finger that scrolls is none that presses
    addEventListener('keydown', wake)
  })
  onScopeDispose(() => {
    removeEventListener('pointerup', wake)
    removeEventListener('keydown', wake)
    void lock.release().catch(() => undefined)
    void audio?.close()
  })
  const turn = () => (wished.value = !wished.value)
  return { turn, wished, shakes, canShake, silent, wake, sound }
}
