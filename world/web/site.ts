import { products } from '../shop/range'
import { sendJournal } from './journal'
import { sitePage } from './page'
import type { SiteForms } from './site-forms'
import type { IncomingMessage, ServerResponse } from 'node:http'

/** The web sites of the practice world: what each path of each host answers. */
const shop: Record<string, string> = {
  '/': 'Kites made in Sandreach',
  '/forecast': 'The week’s wind',
  '/gale-season': 'Gale season: a fifth off until Sunday',
  '/delta-7': 'Delta 7, for strong hands',
  '/line-care': 'Line care in five minutes',
  '/workshop': 'Workshop places',
  '/repair-day': 'Repair day',
  '/festival': 'Kite festival at Gull Harbour',
  '/new-kites': 'New this month',
  '/spares': 'Spars, line and small parts',
  '/beach-reports': 'Beach reports',
  '/beaches': 'Twelve beaches, and which wind each likes',
  '/basket': 'Your basket',
  '/which-kite': 'Which kite is it to be?',
  '/how-often': 'How often we write to you',
}
const sites: Record<string, Record<string, string>> = {
  'galewright.example': shop,
  'www.galewright.example': shop,
}
const moved: Record<string, string> = { '/shop': '/new-kites', '/wind': '/forecast' }

/** What is sold under a path. */
function productAt(path: string): string | undefined {
  return products.find(({ key }) => path === `/kites/${key}`)?.name
}

/** Whether a page is one of the shop's. */
export function isShop(url: URL): boolean {
  return sites[url.hostname] === shop
}

/**
 * Answers a request for a practice web site, as a proxy gets it: with the whole URL. `under`: the path under which it is
 * looked at in a browser, without a proxy.
 */
export function answerSite(
  url: URL,
  request: IncomingMessage,
  response: ServerResponse,
  { now, forms, under = '' }: { now: number; forms: SiteForms | null; under?: string },
) {
  const site = sites[url.hostname]
  const send = (status: number, title: string, headers: Record<string, string> = {}) => {
    const page = sitePage(title, url.pathname, status === 200 ? forms : null, under)
    response.writeHead(status, {
      'Content-Type': 'text/html; charset=utf-8',
      'Content-Security-Policy': policyOf(forms),
      ...headers,
    })
    response.end(request.method === 'HEAD' ? undefined : page)
  }
  if (!site) return send(502, 'There is no such site in the practice world')
  const to = moved[url.pathname]
  if (to)
    return send(301, 'Moved', {
      Location: under ? `${under}${to}` : `https://${url.hostname}${to}`,
    })
  if (site === shop && url.pathname === '/journal.xml')
    return sendJournal(url, request, response, now)
  const title = site[url.pathname] ?? (site === shop ? productAt(url.pathname) : undefined)
  return title ? send(200, title) : send(404, 'This page is gone')
}

/** As strict as a site can be that carries the one line. */
const policyOf = (forms: SiteForms | null) =>
  `default-src 'none'; style-src 'unsafe-inline'${forms ? `; script-src ${forms.satchel}; connect-src ${forms.satchel}; img-src ${forms.satchel}; form-action ${forms.satchel}` : ''}`
