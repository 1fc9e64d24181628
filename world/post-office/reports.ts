import type { BounceShape } from './providers'

/** Why a message came back after it was taken. */
export type Why = 'no mailbox' | 'full'

/** How a server says that a message came back, in its shape: as a report (RFC 3464), or in words of its own. */
export function bounceReport(
  returnPath: string,
  address: string,
  messageId: string,
  shape: BounceShape = 'report',
  why: Why = 'no mailbox',
): string {
  if (shape === 'report') return statusReport(returnPath, address, messageId, why)
  const domain = address.slice(address.indexOf('@') + 1)
  const full = why === 'full'
  const text = {
    words: `Hi. This is the program that delivers mail at ${domain}.\r\nI could not deliver your message to the following address.\r\n\r\n<${address}>:\r\n${full ? 'The mailbox is full. (#5.2.2)' : 'Sorry, no mailbox here by that name. (#5.1.1)'}\r\n\r\n--- Below this line is a copy of the message.\r\n`,
    returned: `This message was created automatically by mail delivery software.\r\n\r\nA message that you sent could not be delivered to one or more of its recipients:\r\n\r\n  ${address}\r\n    ${full ? 'mailbox is full: retry timeout exceeded' : 'Unknown user'}\r\n\r\n------ This is a copy of the message, its headers alone. ------\r\n`,
    German: `Ihre Nachricht konnte nicht zugestellt werden.\r\n\r\nEmpfänger: ${address}\r\nGrund: ${full ? 'Das Postfach ist voll. (5.2.2)' : 'Empfänger unbekannt. (5.1.1)'}\r\n\r\n`,
  }[shape]
  const subject = {
    words: 'failure notice',
    returned: 'Mail delivery failed: returning message to sender',
    German: 'Unzustellbar: Ihre Nachricht',
  }[shape]
  return [
    `From: <mailer-daemon@${domain}>`,
    `To: <${returnPath}>`,
    `Subject: ${subject}`,
    'Auto-Submitted: auto-replied',
    'MIME-Version: 1.0',
    'Content-Type: text/plain; charset=utf-8',
    'Content-Transfer-Encoding: base64',
    '',
    Buffer.from(`${text}\r\nMessage-ID: ${messageId}\r\n`).toString('base64'),
    '',
  ].join('\r\n')
}

/** A report that a message is late and is tried on: nothing follows from it. */
export function delayReport(returnPath: string, address: string, messageId: string): string {
  return statusReport(returnPath, address, messageId, 'late')
}

function statusReport(returnPath: string, address: string, messageId: string, why: Why | 'late') {
  const domain = address.slice(address.indexOf('@') + 1)
  const [words, action, status, code] = {
    'no mailbox': [
      `Nobody here is called ${address}, so your message came back.`,
      'failed',
      '5.1.1',
      '550 5.1.1 no such mailbox',
    ],
    full: [`The mailbox of ${address} is full.`, 'failed', '5.2.2', '552 5.2.2 mailbox full'],
    late: [`Your message to ${address} is late.`, 'delayed', '4.4.1', '451 4.4.1 no answer'],
  }[why] as [string, string, string, string]
  return report(returnPath, `mailer-daemon@${domain}`, 'Undelivered mail', 'delivery-status', [
    ['text/plain; charset=utf-8', words],
    [
      'message/delivery-status',
      `Reporting-MTA: dns; mx.${domain}\r\n\r\nFinal-Recipient: rfc822; ${address}\r\nAction: ${action}\r\nStatus: ${status}\r\nDiagnostic-Code: smtp; ${code}`,
    ],
    ['text/rfc822-headers', `Message-ID: ${messageId}`],
  ])
}

/** An abuse report (RFC 5965): a reader said that this message is spam. */
export function complaintReport(to: string, address: string, messageId: string): string {
  const domain = address.slice(address.indexOf('@') + 1)
  return report(to, `complaints@${domain}`, 'Complaint about a message', 'feedback-report', [
    ['text/plain; charset=utf-8', 'A reader has reported this message as spam.'],
    [
      'message/feedback-report',
      'Feedback-Type: abuse\r\nUser-Agent: practice-post-office/1.0\r\nVersion: 1',
    ],
    ['text/rfc822-headers', `Message-ID: ${messageId}`],
  ])
}

function report(
  to: string,
  from: string,
  subject: string,
  type: string,
  parts: [string, string][],
): string {
  const body = parts
    .map(([kind, text]) => `--part\r\nContent-Type: ${kind}\r\n\r\n${text}\r\n`)
    .join('')
  return [
    `From: <${from}>`,
    `To: <${to}>`,
    `Subject: ${subject}`,
    'Auto-Submitted: auto-replied',
    'MIME-Version: 1.0',
    `Content-Type: multipart/report; report-type=${type}; boundary="part"`,
    '',
    `${body}--part--`,
    '',
  ].join('\r\n')
}
