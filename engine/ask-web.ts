import { request as httpRequest, type IncomingMessage } from 'node:http'
import { request as httpsRequest } from 'node:https'

/** Without an answer, and in all: an answer that only drips is no answer, ms. */
const TIMEOUT = 5_000
const LONGEST = 15_000
const MOST_REDIRECTS = 5

/** What an address answers at its end: after redirects, or why nothing came. */
export type WebAnswer =
  { answer: IncomingMessage; url: string } | { problem: string; status: number | null }

/**
 * Asks an address and follows where it leads to; all of it, with the body that the caller reads, takes `longest` ms at
 * most, and then the body breaks off. The caller reads the body or destroys the answer.
 */
export async function askWeb(
  url: string,
  method: 'HEAD' | 'GET',
  proxy: string | null,
  longest = LONGEST,
): Promise<WebAnswer> {
  const signal = AbortSignal.timeout(longest)
  let next = url
  for (let hop = 0; hop <= MOST_REDIRECTS; hop++) {
    let answer: IncomingMessage
    try {
      answer = await ask(next, method, proxy, signal)
    } catch (error) {
      return { status: null, problem: inWords(error as NodeJS.ErrnoException) }
    }
    const to = answer.headers.location
    if (answer.statusCode! < 300 || answer.statusCode! >= 400 || !to) return { answer, url: next }
    try {
      next = new URL(to, next).href
    } catch {
      answer.destroy()
      return { status: null, problem: 'it redirects to an address that is none' }
    }
    if (!/^https?:/.test(next)) return { answer, url: next }
    answer.destroy()
  }
  return { status: null, problem: 'it redirects in circles' }
}

/** One request, straight or through a proxy (RFC 9112, 3.2.2: absolute form). */
function ask(
  url: string,
  method: 'HEAD' | 'GET',
  proxy: string | null,
  signal: AbortSignal,
): Promise<IncomingMessage> {
  return new Promise((resolve, reject) => {
    const target = new URL(url)
    const headers = { 'User-Agent': 'Satchel', Accept: '*/*' }
    const made = proxy
      ? httpRequest({
          host: new URL(proxy).hostname,
          port: new URL(proxy).port,
          path: url,
          method,
          headers: { ...headers, Host: target.host },
          timeout: TIMEOUT,
          signal,
        })
      : (target.protocol === 'https:' ? httpsRequest : httpRequest)(target, {
          method,
          headers,
          timeout: TIMEOUT,
          signal,
        })
    made.on('response', resolve)
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
    case 'ABORT_ERR':
      return 'it takes longer than 15 seconds'
    case 'ERR_INVALID_URL':
      return 'it is no web address'
    default:
      return /cert|tls|ssl/i.test(error.message)
        ? 'its certificate is not valid'
        : 'the connection broke off'
  }
}
