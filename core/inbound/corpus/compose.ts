import type { Failure } from '../../delivery'

/** What a message is to be read as; a bounce or a delay with its failure. */
export type Right =
  | `bounced: ${Failure}`
  | `delayed: ${Failure}`
  | 'complaint'
  | 'feedback'
  | 'unsubscribing'
  | 'automatic'
  | 'receipt'
  | 'reply'
  | 'noted'

/** A message as a mail server hands it over, and its right reading. */
export interface Sample {
  name: string
  right: Right
  raw: string
}

/** The token of the letter that all of them are about; made up, and never verified here. */
export const token = 'mfzwizltoq4dsobrgiztinjwg44dsmbr'
export const returnPath = `b-${token}@galewright.example`
export const reader = 'tove@inkpost.example'

/** Headers in order, an empty line, and the text, with the line ends of the wire. */
export function message(headers: Record<string, string>, text: string): string {
  const all = {
    Received: 'from mx1.inkpost.example (mx1.inkpost.example [192.0.2.7])',
    Date: 'Mon, 2 Nov 2026 09:12:44 +0000',
    To: returnPath,
    ...headers,
  }
  const head = Object.entries(all).map(([name, value]) => `${name}: ${value}`)
  return `${[...head, '', text].join('\n').trimEnd()}\n`.replace(/\r?\n/g, '\r\n')
}

/** Text of more languages than ASCII has. */
export function inUtf8(headers: Record<string, string>, text: string): string {
  const bytes = message(
    {
      'MIME-Version': '1.0',
      'Content-Type': 'text/plain; charset=utf-8',
      'Content-Transfer-Encoding': '8bit',
      ...headers,
    },
    text,
  )
  return Buffer.from(bytes, 'utf8').toString('latin1')
}

/** The parts of a message, each with its type and what it holds. */
export function parts(
  type: string,
  headers: Record<string, string>,
  ...held: [type: string, text: string][]
): string {
  const body = held.map(([of, text]) => `--=_cut\nContent-Type: ${of}\n\n${text.trim()}\n`).join('')
  return message(
    { 'MIME-Version': '1.0', ...headers, 'Content-Type': `${type}; boundary="=_cut"` },
    `${body}--=_cut--`,
  )
}

/** The head of the letter that came back, as a server quotes it. */
export const returned = `Return-Path: <${returnPath}>
Received: from mail.galewright.example by mx1.inkpost.example; Mon, 2 Nov 2026 09:12:40 +0000
From: Galewright Kites <hello@galewright.example>
To: Tove Lind <${reader}>
Subject: Wind notes: four days of south-west
Message-ID: <${token}@galewright.example>
List-Id: Wind notes <wind.galewright.example>
Feedback-ID: 41:wind:mailing:galewright.example
MIME-Version: 1.0
Content-Type: text/plain; charset=utf-8

Tove, the wind turns on Thursday. Delivery times: 550 g of ripstop are on their way.`

/** A delivery status notification (RFC 3464) about some recipients, one block of fields each. */
export function dsn(
  of: { from?: string; subject?: string; words?: string; returned?: string; to?: string },
  ...recipients: Record<string, string>[]
): string {
  const fields = recipients.map((one) =>
    Object.entries({ 'Final-Recipient': `rfc822; ${reader}`, ...one })
      .map(([name, value]) => `${name}: ${value}`)
      .join('\n'),
  )
  return parts(
    'multipart/report; report-type=delivery-status',
    {
      From: of.from ?? 'Mail Delivery System <MAILER-DAEMON@mx1.inkpost.example>',
      Subject: of.subject ?? 'Undelivered Mail Returned to Sender',
      'Auto-Submitted': 'auto-replied',
      ...(of.to ? { To: of.to } : {}),
    },
    ['text/plain; charset=us-ascii', of.words ?? 'This is what became of your message.'],
    [
      'message/delivery-status',
      `Reporting-MTA: dns; mx1.inkpost.example\nArrival-Date: Mon, 2 Nov 2026 09:12:40 +0000\n\n${fields.join('\n\n')}`,
    ],
    ['message/rfc822', of.returned ?? returned],
  )
}

/** A report about a message by somebody who got it (RFC 5965). */
export function feedback(fields: Record<string, string>, about = returned): string {
  return parts(
    'multipart/report; report-type=feedback-report',
    { From: 'feedback@inkpost.example', To: 'abuse@galewright.example', Subject: 'FW: Wind notes' },
    ['text/plain', 'This is an email abuse report for a message received on Mon, 2 Nov 2026.'],
    [
      'message/feedback-report',
      Object.entries({ 'User-Agent': 'inkpost-feedback/2.1', Version: '1', ...fields })
        .map(([name, value]) => `${name}: ${value}`)
        .join('\n'),
    ],
    ['message/rfc822', about],
  )
}

/** A notification of what became of a message in its reader's hands (RFC 8098). */
export function receipt(disposition: string, subject: string, words: string): string {
  return parts(
    'multipart/report; report-type=disposition-notification',
    { From: `Tove Lind <${reader}>`, Subject: subject },
    ['text/plain', words],
    [
      'message/disposition-notification',
      `Reporting-UA: inkpost.example; Inkpost Reader 3\nFinal-Recipient: rfc822;${reader}\nOriginal-Message-ID: <${token}@galewright.example>\nDisposition: ${disposition}`,
    ],
  )
}
