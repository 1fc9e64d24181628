import { request as httpRequest, type IncomingMessage } from 'node:http'
import { request as httpsRequest } from 'node:https'
import { isIP } from 'node:net'
import { addressesToReach, lookupChecked, NotReached, type Reach } from './reach'

/** Without an answer, and in all: an answer that only drips is no answer, ms. */
const TIMEOUT = 5_000
const LONGEST = 15_000
const MOST_REDIRECTS = 5

/** How the web is asked: straight, where only public addresses are, or through a proxy, which sees to that. */
export interface Way extends Reach {
  webProxy: string | null
}

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
  way: Way,
  longest = LONGEST,
): Promise<WebAnswer> {
  const signal = AbortSignal.timeout(longest)
  let next = url
  for (let hop = 0; hop <= MOST_REDIRECTS; hop++) {
    let answer: IncomingMessage
    try {
      answer = await ask(next, method, way, signal)
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

/**
 * Posts JSON to an address, which is not followed elsewhere; the status of the answer, or why none came. Of what it says
 * besides, at most `most` bytes are read.
 */
export async function postWeb(
  url: string,
  body: string,
  headers: Readonly<Record<string, string>>,
  way: Way,
  most = 0,
): Promise<{ status: number; text: string } | { problem: string }> {
  try {
    const signal = AbortSignal.timeout(LONGEST)
    const answer = await ask(url, 'POST', way, signal, {
      body,
      headers: { 'Content-Type': 'application/json', ...headers },
    })
    const pieces: Buffer[] = []
    let read = 0
    if (most > 0)
      for await (const piece of answer as AsyncIterable<Buffer>) {
        pieces.push(piece.subarray(0, most - read))
        if ((read += piece.length) >= most) break
      }
    answer.destroy()
    return { status: answer.statusCode!, text: Buffer.concat(pieces).toString() }
  } catch (error) {
    return { problem: inWords(error as NodeJS.ErrnoException) }
  }
}

/** One request, straight or through a proxy (RFC 9112, 3.2.2: absolute form). */
async function ask(
  url: string,
  method: 'HEAD' | 'GET' | 'POST',
  way: Way,
  signal: AbortSignal,
  sent: { body?: string; headers?: Readonly<Record<string, string>> } = {},
): Promise<IncomingMessage> {
  const target = new URL(url)
  const headers = {
    ...{ 'User-Agent': 'Satchel', Accept: '*/*', ...sent.headers },
    ...(sent.body === undefined ? {} : { 'Content-Length': Buffer.byteLength(sent.body) }),
  }
  const usual = { method, headers, timeout: TIMEOUT, signal }
  const port = Number(target.port) || (target.protocol === 'https:' ? 443 : 80)
  const isLiteral = isIP(target.hostname.replace(/^\[|\]$/g, '')) !== 0
  // A proxy asks for names itself; what is an address already is checked here in any case.
  const checked =
    way.webProxy === null || isLiteral || target.hostname === 'localhost'
      ? await addressesToReach(target.hostname, port, way)
      : []
  signal.throwIfAborted()
  return new Promise((resolve, reject) => {
    const made =
      way.webProxy === null
        ? (target.protocol === 'https:' ? httpsRequest : httpRequest)(target, {
            ...usual,
            agent: false,
            lookup: lookupChecked(checked),
          })
        : httpRequest({
            ...usual,
            host: new URL(way.webProxy).hostname,
            port: new URL(way.webProxy).port,
            path: url,
            headers: { ...headers, Host: target.host },
          })
    made.on('response', resolve)
    made.on('timeout', () =>
      made.destroy(Object.assign(new Error('no answer'), { code: 'ETIMEDOUT' })),
    )
    made.on('error', reject)
    made.end(sent.body)
  })
}

function inWords(error: NodeJS.ErrnoException): string {
  if (error instanceof NotReached) return error.message
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
