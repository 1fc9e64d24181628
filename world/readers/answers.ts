import { chanceOf } from '../chance'

/** What readers write back, now and then. */
const replies = [
  'Thank you, that made my day. The blue one flies like a dream.',
  'Do you still have the line winders from last spring? My shop had none.',
  'I shall be at the beach on Saturday, whatever the wind says.',
  'One of the links led nowhere for me. The one about repairs, I think.',
  'Could you tell me whether the workshop is also for children?',
  'Keep them coming. Best read of my week.',
  'My parcel came with a torn bag. The kite is fine, only the bag is not.',
  'Is there a meeting of the club in winter, too?',
  'What string would you take for force five?',
  'Please say hello to Wren from me!',
]

const away = [
  'I am away until Monday and read my mail then.',
  'Ich bin bis Montag nicht im Büro.',
  'On the water this week. In urgent cases ask the office.',
]

/** Somebody's words in answer to a letter. */
export function replyMail(to: string, from: string, subject: string, messageId: string): string {
  return mail(to, from, `Re: ${subject}`, pick(replies, from, messageId), [
    `In-Reply-To: ${messageId}`,
  ])
}

/** What a mail program answers for somebody who is away (RFC 3834): to the return path. */
export function awayMail(to: string, from: string, subject: string, messageId: string): string {
  return mail(to, from, `Automatic reply: ${subject}`, pick(away, from, messageId), [
    'Auto-Submitted: auto-replied',
    `In-Reply-To: ${messageId}`,
  ])
}

/** The mail by which a mail program unsubscribes somebody (RFC 2369). */
export function leaveMail(to: string, from: string): string {
  return mail(to, from, 'leave', '', [])
}

function pick(words: readonly string[], from: string, messageId: string): string {
  return words[Math.floor(chanceOf('words', from, messageId) * words.length)]!
}

function mail(to: string, from: string, subject: string, text: string, headers: string[]): string {
  const lines = [
    `From: <${from}>`,
    `To: <${to}>`,
    `Subject: =?utf-8?B?${Buffer.from(subject).toString('base64')}?=`,
    ...headers,
    'MIME-Version: 1.0',
    'Content-Type: text/plain; charset=utf-8',
    'Content-Transfer-Encoding: base64',
    '',
    Buffer.from(text).toString('base64'),
    '',
  ]
  return lines.join('\r\n')
}
