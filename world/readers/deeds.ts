import type { ShopAct } from '../shop/visit'

/** Something a reader, their provider, or somebody in the shop does. */
export type Deed =
  | { do: 'get'; url: string; agent: string; method?: 'GET' | 'HEAD' }
  | { do: 'follow'; url: string; agent: string; address: string }
  | { do: 'shop'; kind: ShopAct['kind']; entry: ShopAct['entry']; at: number }
  | { do: 'leave-by-page'; url: string; agent: string }
  | { do: 'leave-by-header'; url: string; agent: string }
  | { do: 'report'; message: string }

/** Waits for an answer at most so long, ms of the host's. */
const PATIENCE = 10_000

/** Does what is done over HTTP; where a link led, for who followed one. */
export async function carryOut(
  deed: Exclude<Deed, { do: 'shop' }>,
  reportsUrl: string | null,
): Promise<URL | null> {
  const ask = (url: string | URL, options: RequestInit = {}) =>
    fetch(url, { signal: AbortSignal.timeout(PATIENCE), ...options })
  switch (deed.do) {
    case 'get':
    case 'follow': {
      const response = await ask(deed.url, {
        method: deed.do === 'get' ? (deed.method ?? 'GET') : 'GET',
        redirect: 'manual',
        headers: { 'User-Agent': deed.agent },
      })
      await response.arrayBuffer()
      const to = response.headers.get('location')
      return deed.do === 'follow' && to ? new URL(to, deed.url) : null
    }
    case 'leave-by-page': {
      const page = await (await ask(deed.url, { headers: { 'User-Agent': deed.agent } })).text()
      const action = /<form[^>]*method="post"[^>]*action="([^"]+)"/i.exec(page)?.[1]
      if (action)
        await ask(new URL(action, deed.url), {
          method: 'POST',
          body: new URLSearchParams({ leave: 'yes' }),
          headers: { 'User-Agent': deed.agent },
        })
      return null
    }
    case 'leave-by-header':
      await ask(deed.url, {
        method: 'POST',
        body: new URLSearchParams({ 'List-Unsubscribe': 'One-Click' }),
        headers: { 'User-Agent': deed.agent },
      })
      return null
    case 'report':
      if (reportsUrl)
        await ask(reportsUrl, {
          method: 'POST',
          body: deed.message,
          headers: { 'Content-Type': 'message/rfc822' },
        })
      return null
  }
}
