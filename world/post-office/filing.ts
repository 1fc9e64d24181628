import { authenticate } from 'mailauth'
import { readLetter } from '../readers/letter'
import type { Folder } from './mailboxes'
import type { Provider } from './providers'
import type { Arrived } from './smtp'

/** What a provider knows of a message by the sender's records, each as RFC 8601 calls it. */
interface Known {
  spf: string
  dkim: string
  dmarc: string
}

export interface Filed {
  folder: Folder
  /** The message with what the provider writes above it. */
  source: string
}

/** A provider asks about a domain's mail anew after this long, in the host's time, ms. */
const REMEMBERED = 10_000

/**
 * Puts messages into folders as the providers of the practice world do: each message has points for what its sender's
 * records say (SPF, DKIM, DMARC) and for its words and shape; each provider draws its own line.
 */
export function openFiling(resolver: (name: string, type: string) => Promise<unknown>) {
  const remembered = new Map<string, { until: number; known: Promise<Known> }>()

  async function file(mail: Arrived & { ip: string }, provider: Provider): Promise<Filed> {
    const known = await knownOf(mail, provider)
    const points = [...recordPoints(known), ...letterPoints(mail.source)]
    const sum = points.reduce((all, [, n]) => all + n, 0)
    const folder = sum >= provider.junkFrom ? 'junk' : 'inbox'
    const above = [
      `Return-Path: <${mail.returnPath}>`,
      `Authentication-Results: mx.${provider.domain}; spf=${known.spf}; dkim=${known.dkim}; dmarc=${known.dmarc}`,
      ...(points.length
        ? [`Filter-Notes: ${points.map(([about, n]) => `${about} (${n})`).join('; ')}`]
        : []),
    ]
    return { folder, source: `${above.join('\r\n')}\r\n${mail.source}` }
  }

  /** A provider remembers how the mail of a domain with this signature fared, and does not ask for each message. */
  function knownOf(mail: Arrived & { ip: string }, { domain }: Provider): Promise<Known> {
    const sender = mail.returnPath.slice(mail.returnPath.lastIndexOf('@') + 1)
    const signed = /^DKIM-Signature:[^]*?\bs=([\w.-]+)/im.exec(mail.source.slice(0, 4_000))?.[1]
    const key = [domain, sender, signed, mail.ip].join(' ')
    const before = remembered.get(key)
    if (before && before.until > Date.now()) return before.known
    const known = ask(mail, domain, resolver)
    remembered.set(key, { until: Date.now() + REMEMBERED, known })
    return known
  }
  return { file }
}

async function ask(
  { source, returnPath, ip }: Arrived & { ip: string },
  domain: string,
  resolver: (name: string, type: string) => Promise<unknown>,
): Promise<Known> {
  const found = await authenticate(Buffer.from(source, 'latin1'), {
    ip,
    sender: returnPath,
    helo: 'localhost',
    mta: `mx.${domain}`,
    disableArc: true,
    disableBimi: true,
    resolver: resolver as never,
  })
  const signatures = found.dkim.results.map(({ status }) => status.result)
  return {
    spf: found.spf ? found.spf.status.result : 'none',
    dkim: signatures.includes('pass') ? 'pass' : (signatures[0] ?? 'none'),
    dmarc: found.dmarc ? found.dmarc.status.result : 'none',
  }
}

type Point = [about: string, points: number]

function recordPoints({ spf, dkim, dmarc }: Known): Point[] {
  const points: Point[] = []
  if (spf !== 'pass') points.push([`SPF ${spf}`, 1])
  if (dkim !== 'pass') points.push([`DKIM ${dkim}`, 1])
  if (dmarc === 'fail') points.push(['DMARC fail', 3])
  return points
}

const loud = /\b(act now|last chance|free gift|winner|guaranteed|risk[- ]free|cash|cheapest)\b/gi

function letterPoints(source: string): Point[] {
  const { subject, html, links, pictures } = readLetter(source)
  const text = html
    .replace(/<(style|script|title)[^]*?<\/\1>/gi, ' ')
    .replace(/<[^>]*>/g, ' ')
    .replace(/&\w+;|\s+/g, ' ')
  const points: Point[] = []
  const capitals = subject.match(/\p{Lu}/gu)?.length ?? 0
  if (capitals > 8 && capitals > (subject.match(/\p{L}/gu)?.length ?? 0) / 2)
    points.push(['subject in capitals', 2])
  if (/[!?]{2,}|!.*!/.test(subject)) points.push(['subject shouts', 1])
  const words = new Set(`${subject} ${text}`.match(loud)?.map((word) => word.toLowerCase()))
  if (words.size) points.push([`says ${[...words].slice(0, 3).join(', ')}`, words.size])
  if (pictures.length && text.trim().length < 200) points.push(['hardly any words', 2])
  if (links.some((url) => /^https?:\/\/\d+\.\d+\.\d+\.\d+/.test(url) && !/127\.0\.0\.1/.test(url)))
    points.push(['a link to a bare number', 2])
  if (!/^List-Unsubscribe:/im.test(source.slice(0, source.indexOf('\r\n\r\n'))))
    points.push(['no way to unsubscribe in its headers', 1])
  return points
}
