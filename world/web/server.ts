import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import type { Mailboxes } from '../post-office/mailboxes'
import { mailListPage, mailPage } from './mailbox-pages'
import { customerFilePage, DESK, type CustomerFile } from '../customer-file'
import { answerProviders } from './provider-pages'
import { answerSite } from './site'
import type { SiteForms } from './site-forms'

interface World {
  mailboxes: Mailboxes
  waiting: () => number
  now: () => number
  /** Habits of providers were changed. */
  providersChanged?: () => void
  /** The forms that the practice site carries. */
  forms?: SiteForms | null
  /** Where people are handed over to. */
  customers?: CustomerFile
}

/**
 * The practice world's web: a proxy to its sites (requests with a whole URL), and for people and
 * tests the shop's site (`/shop`), its customer file (`/customers`), the mailboxes (`/mail`, `/mailboxes.json`) and how the
 * world is (`/health`).
 */
export function openWeb(options: World): Server {
  return createServer((request, response) => {
    void answer(request, response, options).catch(() => {
      response.writeHead(500)
      response.end()
    })
  })
}

async function answer(
  request: IncomingMessage,
  response: ServerResponse,
  { mailboxes, waiting, now, providersChanged, forms = null, customers }: World,
) {
  const url = new URL(request.url ?? '/', 'http://world.test')
  if (customers && url.hostname === DESK) return customers.answer(request, response)
  if (/^https?:\/\//i.test(request.url ?? ''))
    return answerSite(url, request, response, { now: now(), forms })
  if (/^\/shop(\/|$)/.test(url.pathname)) {
    const there = new URL(url.pathname.slice('/shop'.length) || '/', 'https://galewright.example')
    return answerSite(there, request, response, { now: now(), forms, under: '/shop' })
  }
  const html = (text: string, status = 200) => {
    response.writeHead(status, {
      'Content-Type': 'text/html; charset=utf-8',
      'Content-Security-Policy':
        "default-src 'none'; style-src 'unsafe-inline'; img-src * data:; frame-src 'self'",
    })
    response.end(text)
  }
  const json = (value: unknown) => {
    response.writeHead(200, { 'Content-Type': 'application/json' })
    response.end(JSON.stringify(value))
  }
  if (url.pathname === '/health') return json({ mails: mailboxes.count, waiting: waiting() })
  if (url.pathname === '/mailboxes.json') return json(mailboxes.all())
  if (url.pathname === '/customers') return html(customerFilePage(customers?.all() ?? []))
  if (url.pathname === '/mail' || url.pathname === '/')
    return html(mailListPage(mailboxes, url.searchParams.get('address')))
  if (url.pathname === '/providers')
    return answerProviders(request, response, providersChanged, html)
  const no = /^\/mail\/(\d+)(\.eml)?$/.exec(url.pathname)
  const mail = no && mailboxes.get(Number(no[1]))
  if (!mail) return html('<p>There is no such page.</p>', 404)
  if (no![2]) {
    response.writeHead(200, { 'Content-Type': 'message/rfc822' })
    response.end(mail.source ?? '', 'latin1')
    return
  }
  html(await mailPage(mail))
}
