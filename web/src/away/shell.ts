import { shallowRef } from 'vue'

/** Whether a newer front end waits on this tablet. */
export const newer = shallowRef(false)
/** Whether the front end opens from this tablet while the program is away; undefined until it is known. */
export const shellKept = shallowRef<boolean>()

const lookAgainMs = 60 * 60_000
let registration: ServiceWorkerRegistration | undefined

/** Keeps the front end on this tablet, where the page is secure, and looks for a newer one now and then. */
export async function keepShell() {
  const workers = navigator.serviceWorker as ServiceWorkerContainer | undefined
  if (!workers) {
    shellKept.value = false
    return
  }
  try {
    registration = await workers.register('/sw.js')
    shellKept.value = true
  } catch {
    shellKept.value = false // a certificate that is not trusted; Kitchen says what to do
    return
  }
  const look = () => {
    if (registration?.waiting && workers.controller) newer.value = true
  }
  registration.addEventListener('updatefound', () => registration?.installing?.addEventListener('statechange', look))
  look()
  const again = () => void registration?.update().catch(() => undefined)
  setInterval(again, lookAgainMs)
  document.addEventListener('visibilitychange', () => document.visibilityState === 'visible' && again())
  // Another tab took the newer one: this one goes on with what it has until it is asked.
  const had = !!workers.controller
  workers.addEventListener('controllerchange', () => (newer.value = newer.value || had))
}

/** Opens the newer front end. What was not sent yet stays on this tablet. */
export function takeNewer() {
  const waiting = registration?.waiting
  if (!waiting) return location.reload()
  navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), { once: true })
  waiting.postMessage('take over')
}
