import { request as httpRequest, type IncomingMessage } from 'node:http'
import { request as httpsRequest } from 'node:https'

const TIMEOUT = 5_000
const MOST_REDIRECTS = 5

/** What an address answers at its end: after redirects, or why nothing came. */
export type WebAnswer =
  { answer: IncomingMessage; url: string } | { problem: string; status: number | null }

/** Asks an address and follows where it leads to. The caller reads the body or destroys the answer. */
export async function askWeb(
  url: string,
  method: 'HEAD' | 'GET',
  proxy: string | null,
): Promise<WebAnswer> {
  let next = url
  for (let hop = 0; hop <= MOST_REDIRECTS; hop++) {
    let answer: IncomingMessage
    try {
      answer = await ask(next, method, proxy)
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
function ask(url: string, method: 'HEAD' | 'GET', proxy: string | null): Promise<IncomingMessage> {
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
        })
      : (target.protocol === 'https:' ? httpsRequest : httpRequest)(target, {
          method,
          headers,
          timeout: TIMEOUT,
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
    case 'ERR_INVALID_URL':
      return 'it is no web address'
    default:
      return /cert|tls|ssl/i.test(error.message)
        ? 'its certificate is not valid'
        : 'the connection broke off'
  }
}
