import { otherWordsFor } from '../words'
import type { Field, FieldKind } from '../people/fields'
import type { Comparison } from './comparison'
import { fold } from './fold'
import type { Condition, MailAct, Rule, Times } from './rule'

/** Everything on file one can ask about. */
export interface Vocabulary {
  fields: Field[]
  lists: { id: number; name: string }[]
  tags: { id: number; name: string }[]
  mailings: { id: number; name: string }[]
  segments: { id: number; name: string }[]
  sequences: { id: number; name: string }[]
  products: string[]
  categories: string[]
  events: string[]
  domains: { domain: string; n: number }[]
}

/** Something one can ask: what it says, other words for it, and the rule one begins with. */
export interface Askable {
  words: string
  also: string
  rule: Rule
}

const once: Times = { is: 'at-least', n: 1 }
const mail = (did: MailAct, withinDays: number | null, times = once): Condition => ({
  kind: 'mail',
  did,
  of: { which: 'any' },
  times,
  withinDays,
})
const orders = (over: Partial<Extract<Condition, { kind: 'orders' }>>): Condition => ({
  kind: 'orders',
  what: 'count',
  test: { is: 'number', than: 'over', number: 0 },
  product: null,
  category: null,
  withinDays: null,
  ...over,
})
const not = (rule: Rule): Rule => ({ kind: 'none', of: [rule] })

/** Everything one can ask of this account, the most used first. */
export function askables({
  fields,
  lists,
  tags,
  mailings,
  segments,
  sequences,
  products,
  categories,
  events,
  domains,
}: Vocabulary): Askable[] {
  const onList = (listId: number, state: 'subscribed' | 'unsubscribed' | 'pending'): Condition => ({
    kind: 'on-list',
    listId,
    state,
    since: null,
    way: null,
  })
  return [
    ...fields.flatMap(aboutField),
    {
      words: 'Opened a mailing lately',
      also: 'read reading active 90 days',
      rule: mail('opened', 90),
    },
    {
      words: 'Clicked a mailing lately',
      also: 'link followed active 90 days',
      rule: mail('clicked', 90),
    },
    {
      words: 'Opened several mailings',
      also: 'often times at least',
      rule: mail('opened', 90, { is: 'at-least', n: 3 }),
    },
    {
      words: 'Never opened a mailing',
      also: 'not did not open unread inactive',
      rule: mail('opened', null, { is: 'at-most', n: 0 }),
    },
    { words: 'Was sent a mailing', also: 'got mailed received', rule: mail('sent', 30) },
    { words: 'Received a mailing', also: 'delivered got', rule: mail('delivered', 30) },
    { words: 'Bounced', also: 'came back refused', rule: mail('bounced', 180) },
    { words: 'Complained', also: 'marked as spam', rule: mail('complained', null) },
    { words: 'Unsubscribed by a mailing', also: 'left', rule: mail('left', null) },
    {
      words: 'Opened one of the last mailings',
      also: 'last 5 recent',
      rule: { ...mail('opened', null), of: { which: 'last', n: 5 } } as Condition,
    },
    {
      words: 'Opened all of the last mailings',
      also: 'every last 5 recent',
      rule: {
        ...mail('opened', null, { is: 'at-least', n: 5 }),
        of: { which: 'last', n: 5 },
      } as Condition,
    },
    {
      words: 'Opened none of the last mailings',
      also: 'did not open unread last 5 recent inactive',
      rule: {
        ...mail('opened', null, { is: 'at-most', n: 0 }),
        of: { which: 'last', n: 5 },
      } as Condition,
    },
    {
      words: 'Engagement tier',
      also: 'keen warm cool silent engaged quiet',
      rule: { kind: 'tier', of: ['keen'] },
    },
    {
      words: 'Joined in the last days',
      also: 'new since signed up member date',
      rule: { kind: 'joined', when: { is: 'last-days', days: 30 } },
    },
    {
      words: 'Bought something',
      also: 'once ordered customers buyers purchases',
      rule: orders({}),
    },
    {
      words: 'Bought lately',
      also: 'recent orders days customers buyers purchases',
      rule: orders({ withinDays: 60 }),
    },
    {
      words: 'Bought once',
      also: 'one order only first',
      rule: orders({ test: { is: 'number', than: 'equal', number: 1 } }),
    },
    {
      words: 'Bought twice or more',
      also: 'again repeat several orders buyers purchases',
      rule: orders({ test: { is: 'number', than: 'over', number: 1 } }),
    },
    {
      words: 'Never bought',
      also: 'did not buy no order not customers buyers purchases',
      rule: orders({ test: { is: 'number', than: 'equal', number: 0 } }),
    },
    {
      words: 'Spent at least an amount',
      also: 'money worth best customers revenue',
      rule: orders({ what: 'money', test: { is: 'number', than: 'at-least', number: 5_000 } }),
    },
    {
      words: 'Last bought',
      also: 'order date time lapsed',
      rule: { kind: 'ordered', which: 'last', when: { is: 'last-days', days: 60 } },
    },
    {
      words: 'First bought',
      also: 'order date time new customer',
      rule: { kind: 'ordered', which: 'first', when: { is: 'last-days', days: 60 } },
    },
    ...lists.flatMap(({ id, name }) => [
      { words: `On list ${name}`, also: 'subscribed', rule: onList(id, 'subscribed') },
      {
        words: `Unsubscribed from list ${name}`,
        also: 'left gone',
        rule: onList(id, 'unsubscribed'),
      },
      {
        words: `Joined list ${name} by an import`,
        also: 'imported file csv subscribed',
        rule: { ...onList(id, 'subscribed'), way: 'import' } as Condition,
      },
      { words: `Pending on list ${name}`, also: 'not confirmed', rule: onList(id, 'pending') },
    ]),
    ...tags.flatMap(({ id, name }) => [
      { words: `Tagged ${name}`, also: 'tag', rule: { kind: 'tagged' as const, tagId: id } },
      {
        words: `Not tagged ${name}`,
        also: 'tag without',
        rule: not({ kind: 'tagged', tagId: id }),
      },
    ]),
    ...segments.flatMap(({ id, name }) => [
      { words: `In segment ${name}`, also: '', rule: { kind: 'segment' as const, segmentId: id } },
      {
        words: `Not in segment ${name}`,
        also: 'without',
        rule: not({ kind: 'segment', segmentId: id }),
      },
    ]),
    ...sequences.flatMap(({ id, name }) => [
      {
        words: `Inside sequence ${name}`,
        also: 'enrolled now automated',
        rule: { kind: 'sequence' as const, sequenceId: id, is: 'inside' as const },
      },
      {
        words: `Finished sequence ${name}`,
        also: 'done through ended automated',
        rule: { kind: 'sequence' as const, sequenceId: id, is: 'finished' as const },
      },
      {
        words: `Never in sequence ${name}`,
        also: 'not entered automated',
        rule: { kind: 'sequence' as const, sequenceId: id, is: 'never' as const },
      },
      {
        words: `Opened a mailing of sequence ${name}`,
        also: 'read automated',
        rule: { ...mail('opened', null), of: { which: 'sequence', id } } as Condition,
      },
    ]),
    ...categories.map((category) => ({
      words: `Bought in category ${category}`,
      also: 'order',
      rule: orders({ category }),
    })),
    ...events.map((name) => ({
      words: `Did ${name}`,
      also: 'event visited happened',
      rule: { kind: 'event' as const, name, times: once, withinDays: 30, where: null },
    })),
    {
      words: 'Domain of the address',
      also: 'provider mailbox host',
      rule: {
        kind: 'address',
        part: 'domain',
        test: { is: 'equal', text: domains[0]?.domain ?? 'example.com' },
      },
    },
    {
      words: 'Address contains',
      also: 'e-mail mail',
      rule: { kind: 'address', part: 'whole', test: { is: 'contains', text: 'info' } },
    },
    ...products.map((product) => ({
      words: `Bought ${product}`,
      also: 'order product',
      rule: orders({ product }),
    })),
    ...mailings.flatMap(({ id, name }) =>
      (['opened', 'clicked', 'sent'] as const).map((did) => ({
        words: `${{ opened: 'Opened', clicked: 'Clicked', sent: 'Was sent' }[did]} “${name}”`,
        also: 'mailing',
        rule: { ...mail(did, null), of: { which: 'mailing', id, link: null } } as Condition,
      })),
    ),
  ]
}

function aboutField({ key, name, kind }: Field): Askable[] {
  const ask = (words: string, also: string, test: Comparison) => ({
    words: `${name} ${words}`,
    also,
    rule: { kind: 'field' as const, key, test },
  })
  return [
    ...firstTests[kind].map(([words, also, test]) => ask(words, also, test)),
    ask('is not known', 'empty missing no value', { is: 'empty' }),
  ]
}

/** With what one begins to ask a field of each kind; the text is chosen in the line. */
const firstTests: Record<FieldKind, [string, string, Comparison][]> = {
  text: [['is', 'equals', { is: 'equal', text: '…' }]],
  choice: [['is', 'equals one of', { is: 'equal', text: '…' }]],
  link: [['contains', 'url', { is: 'contains', text: '…' }]],
  choices: [['includes', 'has contains', { is: 'includes', text: '…' }]],
  number: [['is over', 'number more less under', { is: 'number', than: 'over', number: 0 }]],
  yesno: [['is yes', 'true no', { is: 'yes' }]],
  date: [
    ['has its anniversary soon', 'birthday this week year', { is: 'anniversary', days: 7 }],
    ['is in the last days', 'date since recent', { is: 'last-days', days: 30 }],
    ['is before', 'date after on', { is: 'before', day: '2026-01-01' }],
    [
      'is from a day to a day',
      'between dates range',
      { is: 'from-to', from: '2026-01-01', to: '2026-12-31' },
    ],
  ],
}

/** Those that have every word of `text`, at the beginning of one of theirs; those that say it themselves first. */
export function findAskables(all: readonly Askable[], text: string, limit: number): Askable[] {
  const words = fold(text)
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
  const scored = all.flatMap((askable, i) => {
    const own = fold(askable.words).split(/[^\p{L}\p{N}]+/u)
    const also = askable.also.split(' ')
    const others = otherWordsFor(askable.words).flatMap((other) => other.split(' '))
    let score = 0
    for (const word of words) {
      if (own.some((one) => one === word)) score += 3
      else if (own.some((one) => one.startsWith(word))) score += 2
      else if (also.some((one) => one.startsWith(word))) score += 1
      else if (others.some((one) => one.startsWith(word))) score += 0.5
      else return []
    }
    return [{ askable, score: score / Math.max(1, words.length), i }]
  })
  return scored
    .sort((a, b) => b.score - a.score || a.i - b.i)
    .slice(0, limit)
    .map(({ askable }) => askable)
}
