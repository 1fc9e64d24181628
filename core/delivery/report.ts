import { simpleParser } from 'mailparser'
import { readAnswer } from './answer'

/** What a report from a mail server says of one message that was accepted before. */
export type MailReport =
  | { kind: 'bounce'; bounceToken: string; deadAddress: boolean; words: string; answer: string }
  | { kind: 'delayed'; bounceToken: string; words: string; answer: string }
  | { kind: 'complaint'; messageToken: string }

/**
 * Reads a report: a delivery status notification (RFC 3464), a bounce in free form, or an abuse
 * report (ARF, RFC 5965). Null where it is none of them or names no message of ours.
 * `raw` is the whole message as it came.
 */
export async function readReport(raw: string): Promise<MailReport | null> {
  const mail = await simpleParser(raw, { skipHtmlToText: true, skipTextToHtml: true })
  const bodies = [
    raw,
    mail.text ?? '',
    ...mail.attachments.map((part) => part.content.toString('utf8')),
  ]
  const type = String(
    (mail.headers.get('content-type') as { params?: Record<string, string> })?.params?.[
      'report-type'
    ] ?? '',
  )
  if (type.toLowerCase() === 'feedback-report') {
    const messageToken = find(bodies, /^message-id:\s*<([a-z2-7]+)@/im)
    return messageToken ? { kind: 'complaint', messageToken } : null
  }
  const bounceToken = find(bodies, /\bb-([a-z2-7]{20,64})@/i)?.toLowerCase()
  if (!bounceToken) return null
  const action = find(bodies, /^action:\s*(\w+)/im)?.toLowerCase()
  const diagnostic = find(
    bodies,
    /^diagnostic-code:\s*(?:smtp;\s*)?(.+(?:\r?\n[ \t].+)*)/im,
  )?.replace(/\s+/g, ' ')
  const status = find(bodies, /^status:\s*([245]\.\d{1,3}\.\d{1,3})/im)
  const phrase = diagnostic ?? find(bodies, /^.*\b[45]\d\d[ -]+[45]\.\d+\.\d+.*$/m)?.trim() ?? ''
  const answer = status && !phrase.includes(status) ? `${status} ${phrase}`.trim() : phrase
  const first = Number(/\b([245])\.\d{1,3}\.\d{1,3}\b/.exec(answer)?.[1] ?? 5)
  const read = readAnswer(first * 100 + 50, answer)
  if (action === 'delayed' || first === 4)
    return { kind: 'delayed', bounceToken, words: read.words, answer }
  if (action && action !== 'failed') return null
  return { kind: 'bounce', bounceToken, deadAddress: read.deadAddress, words: read.words, answer }
}

function find(texts: string[], pattern: RegExp): string | undefined {
  for (const text of texts) {
    const match = pattern.exec(text)
    if (match) return match[1] ?? match[0]
  }
  return undefined
}
