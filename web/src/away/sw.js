// The front end from this tablet, so that it opens while the program is away. The API and its
// streams are never answered here: what is shown of the kitchen is what the program says now.
// scripts/shell.mjs writes the version and the files of the build in.
const version = '__VERSION__'
const files = ['__FILES__']
const kept = `shell-${version}`

self.addEventListener('install', (e) => {
  e.waitUntil(caches.open(kept).then((c) => c.addAll(files.map((f) => new Request(f, { cache: 'reload' })))))
})

self.addEventListener('activate', (e) => {
  const tidy = async () => {
    for (const name of await caches.keys()) if (name.startsWith('shell-') && name !== kept) await caches.delete(name)
    await self.clients.claim()
  }
  e.waitUntil(tidy())
})

/** A newer one waits until the cook asks for it. */
self.addEventListener('message', (e) => {
  if (e.data === 'take over') void self.skipWaiting()
})

self.addEventListener('fetch', (e) => {
  const { method, mode, url } = e.request
  const { origin, pathname } = new URL(url)
  if (method !== 'GET' || origin !== self.location.origin || pathname.startsWith('/api/') || pathname === '/healthz') return
  const area = mode === 'navigate' && !/\.\w+$/.test(pathname) // an address of the app, not a file
  e.respondWith(answer(e.request, area ? '/' : pathname))
})

async function answer(request, path) {
  const cache = await caches.open(kept)
  return (await cache.match(path, { ignoreVary: true })) ?? fetch(request)
}
