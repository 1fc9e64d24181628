import fc from 'fast-check'
import { expect, test } from 'vitest'
import { failureOf, failures, isFailure, statusIn, type Failure } from './failures'

/** What servers say in the conversation or behind `Diagnostic-Code`, in the shapes they use. */
const answers: [Failure, string][] = [
  [
    'no such address',
    '550 5.1.1 <tove@inkpost.example>: Email address could not be found, or was misspelled',
  ],
  ['no such address', '550 5.4.1 Recipient address rejected: Access denied. AS(201806281)'],
  ['no such address', '550 5.5.0 Requested action not taken: mailbox unavailable (S2017062302).'],
  ['no such address', '550 #5.1.0 Address rejected.'],
  ['no such address', '550 No such recipient here'],
  ['no such address', '550 Invalid recipient tove@inkpost.example (#5.1.1)'],
  ['no such address', '550 5.7.1 Unknown user: tove@inkpost.example'],
  ['no such address', '551 not our user'],
  ['no such address', '553 sorry, this recipient is in my badrecipientto list, no such user'],
  ['no such address', '554 5.7.1 The recipient tove@inkpost.example does not exist'],
  ['no such address', '550 Mailbox not found'],
  ['no such address', '550 5.2.1 The email account that you tried to reach is disabled.'],
  ['no such address', '550 MAILBOX NOT FOUND'],
  // It may come back: only a row of them ends it.
  ['unknown', '550 [SUSPEND] Mailbox currently suspended - Please contact correspondent directly'],
  ['no such address', '550 unrouteable address'],
  ['no such address', '550 5.1.1 RESOLVER.ADR.ExRecipNotFound; not found'],
  ['no such domain', '550 5.1.2 Bad destination system address'],
  ['no such domain', '553 5.1.2 We do not relay: domain not found'],
  ['no such domain', 'Host inkpots.example not found: 3(NXDOMAIN)'],
  ['mailbox full', '552 5.2.2 The email account that you tried to reach is over quota'],
  ['mailbox full', '452 4.2.2 The recipient’s inbox is out of storage space'],
  [
    'mailbox full',
    '554 delivery error: dd Sorry, your message cannot be delivered. This mailbox is over quota (#5.2.2)',
  ],
  ['mailbox full', '552 Requested mail action aborted: exceeded storage allocation'],
  ['mailbox full', '422 The recipient’s mailbox is over its storage limit'],
  ['too large', '552 5.3.4 Your message exceeded the maximum message size limit'],
  ['too large', '523 the message size exceeds the recipient’s size limit'],
  ['too large', '552 Message size exceeds maximum permitted'],
  ['content refused', '554 5.7.1 Spam message rejected'],
  [
    'content refused',
    '550 5.7.1 Our system has detected that this message is likely suspicious due to its content',
  ],
  ['content refused', '571 Message contains spam or virus'],
  ['content refused', '554 5.6.3 Message refused: forbidden attachment'],
  ['content refused', '550 High probability of spam'],
  [
    'policy or authentication',
    '550 5.7.509 Access denied, sending domain does not pass DMARC verification',
  ],
  ['policy or authentication', '550 5.7.1 Unable to relay'],
  ['policy or authentication', '554 5.7.5 Permanent error evaluating DMARC policy'],
  [
    'policy or authentication',
    '550 5.7.25 The IP address sending this message does not have a PTR record',
  ],
  ['policy or authentication', '553 sorry, that domain isn’t allowed to be relayed'],
  ['policy or authentication', '530 5.7.0 Must issue a STARTTLS command first'],
  ['policy or authentication', '550 5.7.133 RESOLVER.RST.SenderNotAuthenticatedForGroup'],
  [
    'blocked for reputation',
    '554 5.7.1 Service unavailable; Client host [198.51.100.9] blocked by zen.spamwatch.example',
  ],
  [
    'blocked for reputation',
    '550 5.7.1 Mail from IP 198.51.100.9 was blocked: it is on the blocklist',
  ],
  ['blocked for reputation', '553 5.3.0 198.51.100.9 DNSBL: refused'],
  [
    'blocked for reputation',
    '421 4.7.0 Our system has detected an unusual rate of unsolicited mail originating from your IP address. To protect our users, mail from your IP has been temporarily rate limited due to its reputation',
  ],
  ['blocked for reputation', '550 5.7.606 Access denied, banned sending IP [198.51.100.9]'],
  ['busy', '421 4.4.2 Connection dropped due to timeout'],
  ['busy', '450 4.2.0 Greylisted, see the postmaster’s page'],
  ['busy', '451 4.3.0 Temporary lookup failure'],
  ['busy', '421 Too many concurrent SMTP connections from this IP address; please try again later'],
  ['busy', '452 4.5.3 Too many recipients'],
  ['busy', '432 4.3.2 STOREDRV.ClientSubmit; sender thread limit exceeded'],
  ['busy', '451 4.7.500 Server busy. Please try again later from 198.51.100.9'],
  ['busy', '450 4.1.1 Recipient address rejected: unverified address: connection timed out'],
  ['unknown', '554 5.0.0 Rejected'],
  ['unknown', '550 5.3.0 Other mail system problem'],
]

test.each(answers)('%s: %s', (failure, answer) => {
  expect(failureOf(statusIn(answer), answer)).toBe(failure)
})

test('whatever is said, it is one of the failures; a status alone is enough where it means one thing', () => {
  fc.assert(
    fc.property(
      fc.string(),
      fc.option(fc.constantFrom('5.1.1', '4.2.2', '5.7.1', '2.0.0')),
      (text, status) => isFailure(failureOf(status, text)),
    ),
  )
  expect(failureOf('5.1.1', 'spam')).toBe('no such address')
  // For now is not for good: an address that can’t be looked up today may be there tomorrow.
  expect(failures[failureOf('4.1.1', '')].leadsTo).not.toBe('suppress')
})
