import type { IncomingMessage, ServerResponse } from 'node:http'
import {
  changeable,
  changeProvider,
  providers,
  type Changeable,
  type Provider,
} from '../post-office/providers'
import { page, safe } from './mailbox-pages'

/** A form holds a few shares; more is none of ours. */
const LONGEST = 4_000

/** Answers the page of the providers' habits: shows them, and takes what is changed in a form. */
export async function answerProviders(
  request: IncomingMessage,
  response: ServerResponse,
  changed: (() => void) | undefined,
  html: (text: string, status?: number) => void,
) {
  if (request.method !== 'POST') return html(providersPage())
  // Only its own page may change it, not another that happens to be open in the same browser.
  const from = request.headers['sec-fetch-site']
  if (from !== undefined && from !== 'same-origin') return html(page('Not from here', ''), 403)
  let body = ''
  for await (const piece of request) {
    body += String(piece)
    if (body.length > LONGEST) return html(page('Too long', ''), 413)
  }
  const form = new URLSearchParams(body)
  const shares = Object.fromEntries(
    (Object.keys(changeable) as Changeable[]).map((key) => [
      key,
      form.get(key) === null || form.get(key) === '' ? undefined : Number(form.get(key)) / 100,
    ]),
  )
  if (!changeProvider(form.get('domain') ?? '', shares))
    return html(page('There is no such provider', ''), 404)
  changed?.()
  response.writeHead(303, { Location: '/providers' })
  response.end()
}

function providersPage(): string {
  return page(
    'Providers and their habits',
    `<p>Each habit is a share in %. It counts from now on, for mail that comes then.</p>${providers.map(formOf).join('')}`,
  )
}

function formOf(provider: Provider): string {
  const rows = (Object.entries(changeable) as [Changeable, string][]).map(
    ([key, about]) =>
      `<tr><td><label for="${key} ${provider.domain}">${about}</label></td><td><input id="${key} ${provider.domain}" name="${key}" type="number" min="0" max="100" step="any" size="8" value="${Number((provider[key] * 100).toFixed(4))}"> %</td></tr>`,
  )
  return `<form method="post" action="/providers"><h2>${safe(provider.name)}</h2><input type="hidden" name="domain" value="${safe(provider.domain)}"><table>${rows.join('')}</table><p><button>Change the habits of ${safe(provider.name)}</button></p></form>`
}
