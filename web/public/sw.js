// Answers the address of a page while the server is away: with the page that says so (server/api/page.ts), and nothing else.
const KEPT = 'wardoptic-offline'

self.addEventListener('install', (event) => {
  event.waitUntil(caches.open(KEPT).then((kept) => kept.add('/offline')))
})
self.addEventListener('activate', (event) => {
  event.waitUntil(self.clients.claim())
})
self.addEventListener('fetch', (event) => {
  if (event.request.mode !== 'navigate') return
  event.respondWith(
    fetch(event.request).catch(async () => (await caches.match('/offline')) ?? Response.error())
  )
})
