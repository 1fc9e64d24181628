/** A delivery status notification (RFC 3464) for a mailbox that turned out not to exist. */
export function bounceReport(returnPath: string, address: string, messageId: string): string {
  const domain = address.slice(address.indexOf('@') + 1)
  return report(returnPath, `mailer-daemon@${domain}`, 'Undelivered mail', 'delivery-status', [
    ['text/plain; charset=utf-8', `Nobody here is called ${address}, so your message came back.`],
    [
      'message/delivery-status',
      `Reporting-MTA: dns; mx.${domain}\r\n\r\nFinal-Recipient: rfc822; ${address}\r\nAction: failed\r\nStatus: 5.1.1\r\nDiagnostic-Code: smtp; 550 5.1.1 no such mailbox`,
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
