import { request as httpRequest, type IncomingMessage } from 'node:http'
import { request as httpsRequest } from 'node:https'
import type { LinkCheck } from '../core/proof'
import { linksToCheck, saveLinkCheck } from '../database/links'
import type { Work } from './engine'

const TIMEOUT = 5_000
const MOST_REDIRECTS = 5

/** Asks the links that wait to be asked, a few at a time. */
export const checkLinks: Work = async ({ db, clock, settings }) => {
  const urls = linksToCheck(db, 8)
  await Promise.all(
    urls.map(async (url) => saveLinkCheck(db, url, await askLink(url, settings.webProxy), clock())),
  )
  return urls.length > 0
}

/** What a link answers at its end: the status after redirects, or why nothing came. */
export async function askLink(url: string, proxy: string | null): Promise<LinkCheck> {
  let next = url
  for (let hop = 0; hop <= MOST_REDIRECTS; hop++) {
    let answer: IncomingMessage
    try {
      answer = await ask(next, 'HEAD', proxy)
      if (answer.statusCode === 405 || answer.statusCode === 501)
        answer = await ask(next, 'GET', proxy)
    } catch (error) {
      return { status: null, problem: inWords(error as NodeJS.ErrnoException) }
    }
    const to = answer.headers.location
    if (answer.statusCode! < 300 || answer.statusCode! >= 400 || !to)
      return { status: answer.statusCode!, problem: null }
    try {
      next = new URL(to, next).href
    } catch {
      return { status: null, problem: 'it redirects to an address that is none' }
    }
    if (!/^https?:/.test(next)) return { status: answer.statusCode!, problem: null }
  }
  return { status: null, problem: 'it redirects in circles' }
}

/** One request, straight or through a proxy (RFC 9112, 3.2.2: absolute form). The body is not read. */
function ask(url: string, method: 'HEAD' | 'GET', proxy: string | null): Promise<IncomingMessage> {
  return new Promise((resolve, reject) => {
    const target = new URL(url)
    const headers = { 'User-Agent': 'Satchel link check', Accept: '*/*' }
    const made = proxy
      ? httpRequest({
          host: new URL(proxy).hostname,
          port: new URL(proxy).port,
          path: url,
          method,
          headers: { ...headers, Host: target.host },
          timeout: TIMEOUT,
        })
      : (target.protocol === 'https:' ? httpsRequest : httpRequest)(target, {
          method,
          headers,
          timeout: TIMEOUT,
        })
    made.on('response', (answer) => {
      answer.destroy()
      resolve(answer)
    })
    made.on('timeout', () =>
      made.destroy(Object.assign(new Error('no answer'), { code: 'ETIMEDOUT' })),
    )
    made.on('error', reject)
    made.end()
  })
}

function inWords(error: NodeJS.ErrnoException): string {
  switch (error.code) {
    case 'ENOTFOUND':
    case 'EAI_AGAIN':
      return 'there is no such site'
    case 'ECONNREFUSED':
      return 'the site refuses connections'
    case 'ETIMEDOUT':
      return 'no answer within 5 seconds'
    case 'ERR_INVALID_URL':
      return 'it is no web address'
    default:
      return /cert|tls|ssl/i.test(error.message)
        ? 'its certificate is not valid'
        : 'the connection broke off'
  }
}
