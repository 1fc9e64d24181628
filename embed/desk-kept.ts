/**
 * A service worker for a form at a desk: the page, its script and its pictures come from this browser while there is no
 * line, also when the tablet was off in between. Pages that are at no desk go to the server as if it were not there.
 */
const worker = self as unknown as {
  skipWaiting(): Promise<void>
  addEventListener(of: 'install' | 'fetch', on: (event: Fetching) => void): void
}
interface Fetching extends Event {
  request: Request
  respondWith(answer: Promise<Response>): void
}

const isDesk = (url: string) => new URL(url).searchParams.has('desk')

worker.addEventListener('install', () => void worker.skipWaiting())
worker.addEventListener('fetch', (event) => {
  const { request } = event
  const atDesk =
    request.mode === 'navigate' ? isDesk(request.url) : isDesk(request.referrer || 'x:')
  if (request.method !== 'GET' || !atDesk) return
  event.respondWith(
    fetch(request).catch(async (cause: unknown) => {
      const kept = await caches.match(request.url)
      if (kept) return kept
      throw cause
    }),
  )
})

export {}
