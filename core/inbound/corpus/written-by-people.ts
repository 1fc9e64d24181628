import { inUtf8, message, reader, returnPath, token, type Sample } from './compose'

const tove = `Tove Lind <${reader}>`
const to = `r-${token}@galewright.example`
const subject = 'Re: Wind notes: four days of south-west'
const reply = (name: string, text: string, headers: Record<string, string> = {}): Sample => ({
  name,
  right: 'reply',
  raw: inUtf8(
    {
      From: tove,
      To: to,
      Subject: subject,
      'In-Reply-To': `<${token}@galewright.example>`,
      ...headers,
    },
    text,
  ),
})
const leave = (name: string, headers: Record<string, string>, text = ''): Sample => ({
  name,
  right: 'unsubscribing',
  raw: message({ From: tove, To: `leave-${token}@galewright.example`, ...headers }, text),
})

/** Replies by people, and mail that asks to be taken off a list. */
export const writtenByPeople: Sample[] = [
  reply('a few words', 'Lovely kites! See you on the beach.'),
  reply(
    'words above the letter',
    `Which string do you use?

On Mon, 2 Nov 2026 at 09:12, Galewright Kites <hello@galewright.example> wrote:
> Tove, the wind turns on Thursday.
> Your parcel could not be delivered? Tell us.`,
  ),
  reply(
    'one that quotes a bounce it got',
    `Hello, I wrote to your shop and got this back, can you help?

550 5.1.1 <shop@galewright.example>: Recipient address rejected: User unknown

Thanks, Tove`,
  ),
  reply(
    'one that passes a bounce on, whole',
    `Look what came back when I wrote to you.

> This is the mail system at host mx1.inkpost.example.
> I'm sorry to have to inform you that your message could not
> be delivered to one or more recipients.
> <shop@galewright.example>: 550 5.1.1 User unknown`,
    { Subject: 'Fwd: Undelivered Mail Returned to Sender' },
  ),
  reply('to the return path itself', 'Thank you, I am looking forward to it.', { To: returnPath }),
  reply(
    'to the return path, with a code in it',
    'The 550 5.1.1 metre line broke. Do you have another?',
    { To: returnPath },
  ),
  reply('without a subject', 'yes', { Subject: '' }),
  reply('one who wants to leave, in their own words', 'Please take me off this list.'),
  reply(
    'one about a delivery that failed',
    'My delivery failed: nobody rang. When will you try again?',
    {
      Subject: 'Delivery failed',
    },
  ),
  reply('one about a mailbox that is full', 'My mailbox is full of your letters, in a good way.'),
  reply('from a telephone', 'ok 👍\n\nSent from my telephone'),
  reply('in German', 'Vielen Dank! Der Empfänger der Drachen bin ich.', {
    Subject: 'AW: Wind notes',
  }),
  reply('in Japanese', '凧をありがとうございます。', { Subject: 'Re: Wind notes' }),
  reply(
    'signed by a helpdesk that is a person',
    'Hello, this is Rafe of the helpdesk. I am the postmaster here, and I like your kites.',
    {
      From: 'Rafe Moll <rafe@harbourworks.example>',
    },
  ),
  reply('with an urgent mark, and read on a list', 'When does the workshop begin?', {
    Importance: 'high',
    Precedence: 'normal',
    'Auto-Submitted': 'no',
  }),
  {
    name: 'from the office whose head is the postmaster, a person',
    right: 'reply',
    raw: message(
      { From: 'Postmaster Lane Kites <shop@postmasterlane.example>', To: to, Subject: subject },
      'We would like to sell your kites on Postmaster Lane.',
    ),
  },
  leave('by the button of a mail program', { Subject: 'leave' }),
  leave('without a subject', { Subject: '' }),
  leave(
    'with a subject of the program’s own',
    { Subject: 'unsubscribe' },
    'Please unsubscribe me.',
  ),
  leave('by a provider, for its reader', {
    From: 'unsubscribe-agent@letterbird.example',
    Subject: 'leave',
    'Auto-Submitted': 'auto-generated',
  }),
  leave('with a name before the address', {
    To: `"Wind notes" <LEAVE-${token.toUpperCase()}@galewright.example>`,
    Subject: 'leave',
  }),
]
