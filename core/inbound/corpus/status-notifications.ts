import { dsn, message, parts, reader, returned, returnPath, type Sample } from './compose'

const failed = (status: string, said?: string, more: Record<string, string> = {}) => ({
  Action: 'failed',
  Status: status,
  ...(said ? { 'Diagnostic-Code': said } : {}),
  ...more,
})

/** Delivery status notifications (RFC 3464), well formed and less so. */
export const statusNotifications: Sample[] = [
  {
    name: 'a mailbox that is not there',
    right: 'bounced: no such address',
    raw: dsn({}, failed('5.1.1', 'smtp; 550 5.1.1 <tove@inkpost.example>: no such mailbox')),
  },
  {
    name: 'an unknown user, in lower case and with spaces before the colon',
    right: 'bounced: no such address',
    raw: dsn(
      {},
      { 'action ': ' Failed', 'status ': ' 5.1.1', 'diagnostic-code ': ' X-unix; user unknown' },
    ),
  },
  {
    name: 'status of no meaning, and a diagnosis that says it',
    right: 'bounced: no such address',
    raw: dsn({}, failed('5.0.0', 'smtp; 550 Requested action not taken: mailbox unavailable')),
  },
  {
    name: 'a diagnosis over three lines',
    right: 'bounced: no such address',
    raw: dsn(
      {},
      failed(
        '5.0.0',
        'smtp; 550-The account that you tried to reach\n    550-does not exist. Check the address for typing\n    550 errors.',
      ),
    ),
  },
  {
    name: 'an account that is closed',
    right: 'bounced: no such address',
    raw: dsn({}, failed('5.2.1', 'smtp; 550 5.2.1 This account has been disabled')),
  },
  {
    name: 'somebody who moved',
    right: 'bounced: no such address',
    raw: dsn({}, failed('5.1.6', 'smtp; 551 5.1.6 recipient no longer on server')),
  },
  {
    name: 'a domain that is not there',
    right: 'bounced: no such domain',
    raw: dsn({}, failed('5.1.2', 'dns; Host or domain name not found. type=AAAA: Host not found')),
  },
  {
    name: 'a domain that takes no mail (RFC 7505)',
    right: 'bounced: no such domain',
    raw: dsn({}, failed('5.1.10', 'smtp; 556 5.1.10 Recipient address has null MX')),
  },
  {
    name: 'a server that resolves no name',
    right: 'bounced: no such domain',
    raw: dsn(
      {},
      failed('5.4.4', 'X-Postfix; unable to look up host inkpost.example: Name not known'),
    ),
  },
  {
    name: 'a mailbox that is full, for good',
    right: 'bounced: mailbox full',
    raw: dsn({}, failed('5.2.2', 'smtp; 552 5.2.2 Mailbox size limit exceeded')),
  },
  {
    name: 'a mailbox that was full for five days: 4.x.x, and failed',
    right: 'bounced: mailbox full',
    raw: dsn({}, failed('4.2.2', 'smtp; 452 4.2.2 Over quota')),
  },
  {
    name: 'nobody answered for five days',
    right: 'bounced: busy',
    raw: dsn(
      {},
      failed('4.4.1', 'X-Postfix; connect to mx1.inkpost.example[192.0.2.7]:25: timed out'),
    ),
  },
  {
    name: 'given up after the time to live',
    right: 'bounced: busy',
    raw: dsn({}, failed('4.4.7', 'smtp; 451 4.4.7 Delivery time expired')),
  },
  {
    name: 'five days, by its English name',
    right: 'bounced: busy',
    raw: dsn({}, failed('5.4.7', 'smtp;550 5.4.7 [internal] exceeded max time without delivery')),
  },
  {
    name: 'a message that is too large',
    right: 'bounced: too large',
    raw: dsn({}, failed('5.3.4', 'smtp; 552 5.3.4 Message size exceeds fixed limit')),
  },
  {
    name: 'too large, by the mailbox',
    right: 'bounced: too large',
    raw: dsn({}, failed('5.2.3', 'smtp; 550 5.2.3 message length exceeds administrative limit')),
  },
  {
    name: 'content that is refused',
    right: 'bounced: content refused',
    raw: dsn({}, failed('5.7.1', 'smtp; 554 5.7.1 This message scored 9.3 and looks like spam')),
  },
  {
    name: 'content that is refused, by its own status',
    right: 'bounced: content refused',
    raw: dsn({}, failed('5.6.0', 'smtp; 550 5.6.0 Message content rejected, virus found')),
  },
  {
    name: 'authentication that fails',
    right: 'bounced: policy or authentication',
    raw: dsn(
      {},
      failed('5.7.26', 'smtp; 550 5.7.26 Unauthenticated email is not accepted: DMARC policy'),
    ),
  },
  {
    name: 'SPF that fails',
    right: 'bounced: policy or authentication',
    raw: dsn({}, failed('5.7.23', 'smtp; 550 5.7.23 SPF validation failed')),
  },
  {
    name: 'relaying that is not allowed',
    right: 'bounced: policy or authentication',
    raw: dsn({}, failed('5.7.1', 'smtp; 554 5.7.1 <tove@inkpost.example>: Relay access denied')),
  },
  {
    name: 'an address on a blocklist',
    right: 'bounced: blocked for reputation',
    raw: dsn(
      {},
      failed(
        '5.7.1',
        'smtp; 554 5.7.1 Service unavailable; Client host [198.51.100.9] blocked using bl.spamwatch.example',
      ),
    ),
  },
  {
    name: 'a poor reputation, by its words',
    right: 'bounced: blocked for reputation',
    raw: dsn(
      {},
      failed(
        '5.7.0',
        'smtp; 550 5.7.0 Mail from IP 198.51.100.9 was rejected due to poor reputation',
      ),
    ),
  },
  {
    name: 'refused, and nobody says why',
    right: 'bounced: unknown',
    raw: dsn({}, failed('5.0.0', 'smtp; 554 Transaction failed')),
  },
  {
    name: 'failed without a diagnosis',
    right: 'bounced: no such address',
    raw: dsn({}, failed('5.1.1')),
  },
  {
    name: 'a delay',
    right: 'delayed: busy',
    raw: dsn(
      { subject: 'Delayed Mail (still being retried)' },
      { Action: 'delayed', Status: '4.4.1' },
    ),
  },
  {
    name: 'a delay of a mailbox that is full',
    right: 'delayed: mailbox full',
    raw: dsn(
      { subject: 'Warning: message still undelivered after 4 hours' },
      { Action: 'delayed', Status: '4.2.2', 'Diagnostic-Code': 'smtp; 452 4.2.2 mailbox full' },
    ),
  },
  {
    name: 'a delay whose status is written as if it were for good',
    right: 'delayed: busy',
    raw: dsn({ subject: 'Delivery delayed' }, { Action: 'delayed', Status: '5.4.7' }),
  },
  {
    name: 'what arrived',
    right: 'noted',
    raw: dsn(
      { subject: 'Successful Mail Delivery Report' },
      { Action: 'delivered', Status: '2.0.0' },
    ),
  },
  {
    name: 'what was passed on',
    right: 'noted',
    raw: dsn({ subject: 'Relayed' }, { Action: 'relayed', Status: '2.1.9' }),
  },
  {
    name: 'what was spread to several',
    right: 'noted',
    raw: dsn({ subject: 'Expanded' }, { Action: 'expanded', Status: '2.0.0' }),
  },
  {
    name: 'failed at one of two to whom it was passed on, and arrived at the other',
    right: 'noted',
    raw: dsn(
      {},
      {
        'Final-Recipient': 'rfc822; tove.home@oldmill.example',
        Action: 'delivered',
        Status: '2.0.0',
      },
      {
        'Final-Recipient': 'rfc822; tove.work@oldmill.example',
        ...failed('5.1.1', 'smtp; 550 5.1.1 unknown'),
      },
    ),
  },
  {
    name: 'the block of the reader counts, not the first one',
    right: 'bounced: mailbox full',
    raw: dsn(
      {},
      {
        'Original-Recipient': 'rfc822;elsewhere@oldmill.example',
        'Final-Recipient': 'rfc822; elsewhere@oldmill.example',
        ...failed('5.1.1'),
      },
      { 'Original-Recipient': `rfc822;${reader}`, ...failed('5.2.2', 'smtp; 552 5.2.2 full') },
    ),
  },
  {
    name: 'an action that is written as “failure”',
    right: 'bounced: no such address',
    raw: dsn({}, { Action: 'failure', Status: '5.1.1' }),
  },
  {
    name: 'an action that is written as “error”',
    right: 'bounced: mailbox full',
    raw: dsn({}, { Action: 'error', Status: '5.2.2' }),
  },
  {
    name: 'a status with a comment behind it',
    right: 'bounced: no such address',
    raw: dsn({}, { Action: 'failed', Status: '5.1.1 (bad destination mailbox address)' }),
  },
  {
    name: 'no action at all, and a status for good',
    right: 'bounced: no such address',
    raw: dsn({}, { Status: '5.1.1', 'Diagnostic-Code': 'smtp; 550 5.1.1 User unknown' }),
  },
  {
    name: 'a report without its machine-readable part, whose words say it',
    right: 'bounced: no such address',
    raw: parts(
      'multipart/report; report-type=delivery-status',
      { From: 'MAILER-DAEMON@mx1.inkpost.example', Subject: 'Undeliverable' },
      ['text/plain', `<${reader}>: host mx1.inkpost.example said: 550 5.1.1 User unknown`],
      ['text/rfc822-headers', returned.split('\n\n')[0]!],
    ),
  },
  {
    name: 'a report whose type is not said in its head',
    right: 'bounced: no such address',
    raw: parts(
      'multipart/mixed',
      { From: 'postmaster@mx1.inkpost.example', Subject: 'Delivery failure' },
      ['text/plain', 'Your message could not be delivered.'],
      [
        'message/delivery-status',
        `Reporting-MTA: dns; mx1.inkpost.example\n\nFinal-Recipient: rfc822; ${reader}\nAction: failed\nStatus: 5.1.1`,
      ],
      ['message/rfc822', returned],
    ),
  },
  {
    name: 'the letter that came back speaks of “Status: 5.1.1” itself, and what failed is the mailbox’s size',
    right: 'bounced: mailbox full',
    raw: dsn(
      {
        returned: `${returned}\nAction: failed\nStatus: 5.1.1\nDiagnostic-Code: smtp; 550 unknown`,
      },
      failed('5.2.2'),
    ),
  },
  {
    name: 'a delivery status of the older kind, as text',
    right: 'bounced: no such address',
    raw: message(
      {
        From: 'Mail Administrator <postmaster@inkpost.example>',
        Subject: 'Mail System Error - Returned Mail',
      },
      `This Message was undeliverable due to the following reason:

Each of the following recipients was rejected by a remote mail server.
The reasons given by the server are included to help you determine why
each recipient was rejected.

    Recipient: <${reader}>
    Reason:    <${reader}>... User unknown

Reporting-MTA: dns; mx1.inkpost.example
Return-Path: <${returnPath}>`,
    ),
  },
  {
    name: 'a mailbox that is busy for now and was given up',
    right: 'bounced: busy',
    raw: dsn(
      {},
      failed('4.2.1', 'smtp; 450 4.2.1 mailbox is receiving mail at a rate that prevents more'),
    ),
  },
]
