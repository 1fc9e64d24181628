import type { ShopAct } from '../shop/visit'
import type { Visitor } from '../visitors/hour'

/** Something a reader, their provider, or somebody in the shop does. */
export type Deed =
  | { do: 'get'; url: string; agent: string; method?: 'GET' | 'HEAD' }
  | { do: 'follow'; url: string; agent: string; address: string }
  | { do: 'shop'; kind: ShopAct['kind']; entry: ShopAct['entry']; at: number }
  | { do: 'visit'; visitor: Visitor }
  | { do: 'confirm-by-page'; url: string; agent: string }
  | { do: 'leave-by-page'; url: string; agent: string }
  /** On their own page they ask for less instead. */
  | { do: 'less-by-page'; url: string; agent: string; wish: Record<string, string> }
  | { do: 'leave-by-header'; url: string; agent: string }
  | { do: 'report'; message: string }

/** Waits for an answer at most so long, ms of the host's. */
const PATIENCE = 10_000

/** Does what is done over HTTP; where a link led, for who followed one. */
export async function carryOut(
  deed: Exclude<Deed, { do: 'shop' | 'visit' }>,
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
    case 'confirm-by-page':
    case 'leave-by-page':
    case 'less-by-page': {
      const headers = { 'User-Agent': deed.agent }
      const page = await (await ask(deed.url, { headers })).text()
      const form = /<form[^>]*method="post"[^>]*>/i.exec(page)?.[0]
      // A form that does not say where it goes, goes to its page.
      const action = form && (/action="([^"]+)"/i.exec(form)?.[1] ?? deed.url)
      const says =
        deed.do === 'less-by-page'
          ? deed.wish
          : { [deed.do === 'leave-by-page' ? 'leave' : 'confirm']: 'yes' }
      if (action)
        await ask(new URL(action, deed.url), {
          ...{ method: 'POST', body: new URLSearchParams(says), headers },
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
