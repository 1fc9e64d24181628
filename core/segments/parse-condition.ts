import { tiers, type Tier } from '../standing'
import type { TextComparison } from './comparison'
import { fold } from './fold'
import type { NumberComparison } from './comparison'
import { readComparison, readNumber, readTime, readTimes, readWithin } from './parse-comparison'
import type { Catalog } from './ready'
import { allowsNone, type Condition, type MailAct, type Times } from './rule'
import type { TokenReader } from './token-reader'
import type { Token } from './tokens'
import { firstWords } from './write'

export function readCondition(r: TokenReader, catalog: Catalog): Condition {
  const start = r.next
  const field = readField(r, catalog)
  if (field !== null) return { kind: 'field', key: field, test: readComparison(r) }
  const word = r.token.kind === 'word' ? fold(r.token.text) : ''
  r.next++
  switch (word) {
    case 'joined':
      if (r.take('list')) return readList(r, catalog, 'subscribed')
      return { kind: 'joined', when: readTime(r) }
    case 'on':
      r.expect('list')
      return readList(r, catalog, 'subscribed')
    case 'pending':
      r.expect('on')
      r.expect('list')
      return readList(r, catalog, 'pending')
    // As it was called earlier.
    case 'left':
      if (r.take('by')) return readMail(r, catalog, 'left')
      r.expect('list')
      return readList(r, catalog, 'unsubscribed')
    case 'unsubscribed':
      if (r.take('by')) return readMail(r, catalog, 'left')
      r.expect('from')
      r.expect('list')
      return readList(r, catalog, 'unsubscribed')
    case 'tagged':
      return { kind: 'tagged', tagId: r.named(catalog.tags, 'tag') }
    case 'address':
    case 'domain': {
      const at = r.next
      const test = readComparison(r)
      if (!('text' in test || 'texts' in test) || test.is.startsWith('includes'))
        throw r.fault('An address is compared as text: is, contains, starts with, ends with.', at)
      return {
        kind: 'address',
        part: word === 'domain' ? 'domain' : 'whole',
        test: test as TextComparison,
      }
    }
    case 'was':
      r.expect('sent')
      return readMail(r, catalog, 'sent')
    case 'received':
      return readMail(r, catalog, 'delivered')
    case 'opened':
    case 'clicked':
      return readMail(r, catalog, word)
    case 'bounced':
      r.expect('on')
      return readMail(r, catalog, 'bounced')
    case 'complained':
      r.expect('about')
      return readMail(r, catalog, 'complained')
    case 'bought':
      return readOrders(r, catalog, 'count')
    case 'spent':
      return readOrders(r, catalog, 'money')
    case 'first':
    case 'last':
      r.expect('bought')
      return { kind: 'ordered', which: word, when: readTime(r) }
    case 'did':
      return readEvent(r)
    case 'in':
      r.expect('segment')
      return {
        kind: 'segment',
        segmentId: r.named(
          new Map([...catalog.segments].map(([id, { name }]) => [id, name])),
          'segment',
        ),
      }
    case 'never':
      if (r.take('in')) {
        r.expect('sequence')
        return { kind: 'sequence', sequenceId: r.named(catalog.sequences, 'sequence'), is: word }
      }
      return readNever(r, catalog)
    case 'inside':
    case 'finished':
      r.expect('sequence')
      return { kind: 'sequence', sequenceId: r.named(catalog.sequences, 'sequence'), is: word }
    case 'tier':
      return readTier(r)
    default: {
      r.next = start
      throw r.token.kind === 'end'
        ? r.fault('Something is missing at the end.')
        : r.fault(`Nothing is known by “${r.token.text}”: no condition and no field begins so.`)
    }
  }
}

/** A field by its name, as words or quoted, or by its key; null where none begins here. */
function readField(r: TokenReader, catalog: Catalog): string | null {
  const { fields } = catalog
  const named = (name: string) =>
    [...fields].filter(([, field]) => fold(field.name) === fold(name)).map(([key]) => key)
  if (r.token.kind === 'string') {
    const [key] = named(r.token.text)
    if (key === undefined) throw r.fault(`There is no field “${r.token.text}”.`)
    r.next++
    return key
  }
  if (r.token.kind !== 'word') return null
  const follows = r.follows
  if (fold(r.token.text) === 'field' && follows.text.startsWith('#')) {
    r.next += 2
    return follows.text.slice(1)
  }
  // A field may begin as a condition does ("First kite", "Last name"): it is one where a comparison stands behind its name.
  const ambiguous = firstWords.has(fold(r.token.text))
  for (let words = 6; words > 0; words--) {
    const run = r.tokens.slice(r.next, r.next + words)
    if (run.length < words || run.some((token) => token.kind !== 'word')) continue
    const [key] = named(run.map((token) => token.text).join(' '))
    if (key === undefined) continue
    const compared = beginsComparison(r.tokens[r.next + words])
    if (ambiguous && !(compared && (words > 1 || !comparedWords.has(fold(r.token.text))))) continue
    r.next += words
    return key
  }
  return null
}

function beginsComparison(token: Token | undefined): boolean {
  return token?.kind === 'word' && comparing.has(fold(token.text))
}
/** Conditions that begin with one word and go on with a comparison. */
const comparedWords = new Set(['address', 'domain', 'tier'])
const comparing = new Set(['is', 'contains', 'includes', 'starts', 'ends', 'does', 'has'])

/** "never bought …", "never opened …": none of them. */
function readNever(r: TokenReader, catalog: Catalog): Condition {
  const at = r.next
  const found = readCondition(r, catalog)
  const nothing = { is: 'at-most', n: 0 } as const
  if (found.kind === 'mail' || found.kind === 'event') {
    if (!isOnce(found.times)) throw r.fault('“never” leaves nothing to count.', at)
    return { ...found, times: nothing }
  }
  if (found.kind === 'orders' && found.what === 'count') {
    const once =
      found.test.is === 'number' && found.test.than === 'at-least' && found.test.number === 1
    if (!once) throw r.fault('“never” leaves nothing to count.', at)
    return { ...found, test: { is: 'number', than: 'equal', number: 0 } }
  }
  throw r.fault('“never” stands before opened, clicked, bought, did, or in sequence.', at)
}

const isOnce = ({ is, n }: Times) => is === 'at-least' && n === 1

function readList(
  r: TokenReader,
  catalog: Catalog,
  state: 'pending' | 'subscribed' | 'unsubscribed',
): Condition {
  const listId = r.named(catalog.lists, 'list')
  const since = ['before', 'after', 'on', 'in', 'from', 'between'].some((word) => r.is(word))
    ? readTime(r)
    : null
  const way = r.take('by') ? r.string() : null
  return { kind: 'on-list', listId, state, since, way }
}

function readMail(r: TokenReader, catalog: Catalog, did: MailAct): Condition {
  const ofLast = readOfLast(r)
  const of = ofLast?.of ?? readWhich(r, catalog)
  const times = ofLast?.times ?? readTimes(r)
  const withinDays = readWithin(r)
  const found: Condition = { kind: 'mail', did, of, times, withinDays }
  const mayBeUnsent = (did === 'opened' || did === 'clicked') && allowsNone(times)
  if (!mayBeUnsent || !r.areWords('or', 'was', 'sent', 'none')) return found
  r.next += 4
  return { ...found, orUnsent: true }
}

/** "all of the last 5 mailings", "none of …", "at least 2 of …"; null where something else is said. */
function readOfLast(r: TokenReader): { of: { which: 'last'; n: number }; times: Times } | null {
  const start = r.next
  const share = r.is('all') || r.is('none') ? fold(r.token.text) : null
  const times = share === null ? readTimes(r, 'of') : null
  if (share !== null) r.next++
  if (!r.take('of')) {
    r.next = start
    return null
  }
  r.expect('the')
  r.expect('last')
  const n = readLastCount(r)
  return {
    of: { which: 'last', n },
    times: times ?? (share === 'all' ? { is: 'at-least', n } : { is: 'at-most', n: 0 }),
  }
}

/** "5 mailings", or "mailing" alone, behind "the last". */
function readLastCount(r: TokenReader): number {
  if (r.take('mailing')) return 1
  const n = r.count(1, 1_000)
  r.expect('mailings')
  return n
}

function readWhich(r: TokenReader, catalog: Catalog): Extract<Condition, { kind: 'mail' }>['of'] {
  if (r.take('any')) {
    r.expect('mailing')
    if (!r.take('of')) return { which: 'any' }
    r.expect('sequence')
    return { which: 'sequence', id: r.named(catalog.sequences, 'sequence') }
  }
  if (r.take('the')) {
    r.expect('last')
    return { which: 'last', n: readLastCount(r) }
  }
  let link: number | null = null
  if (r.take('link')) {
    link = r.count(0, 100_000)
    r.expect('of')
  }
  r.expect('mailing')
  return { which: 'mailing', id: r.named(catalog.mailings, 'mailing'), link }
}

function readOrders(r: TokenReader, catalog: Catalog, what: 'count' | 'money'): Condition {
  const test = what === 'money' ? readNumber(r, catalog.moneyDigits) : readOften(r)
  let product: string | null = null
  let category: string | null = null
  if (r.take('on')) {
    r.expect('product')
    product = r.string()
  }
  if (r.is('in') && fold(r.follows.text) === 'category') {
    r.next += 2
    category = r.string()
  }
  return { kind: 'orders', what, test, product, category, withinDays: readWithin(r) }
}

/** How often something was bought: "bought" alone is at least once. */
function readOften(r: TokenReader): NumberComparison {
  const often = readOnce(r)
  if (often) return often
  const counts = ['at', 'exactly', 'over', 'under', 'more', 'less', 'not', 'between']
  if (r.token.kind !== 'number' && !counts.some((word) => r.is(word)))
    return { is: 'number', than: 'at-least', number: 1 }
  const test = readNumber(r, 0)
  if (!r.take('times')) r.expect('time')
  return test
}

/** "once", "twice": just so often. */
function readOnce(r: TokenReader): NumberComparison | null {
  const number = r.take('once') ? 1 : r.take('twice') ? 2 : null
  return number === null ? null : { is: 'number', than: 'equal', number }
}

function readEvent(r: TokenReader): Condition {
  const name = r.string()
  const times = readTimes(r)
  const withinDays = readWithin(r)
  if (!r.take('where')) return { kind: 'event', name, times, withinDays, where: null }
  const at = r.next
  const property = r.string()
  if (!/^[\w .-]{1,60}$/.test(property))
    throw r.fault('A property has letters, figures, spaces, dots and hyphens only.', at)
  return { kind: 'event', name, times, withinDays, where: { property, test: readComparison(r) } }
}

function readTier(r: TokenReader): Condition {
  r.expect('is')
  const found: Tier[] = []
  do {
    const tier = tiers.find((one) => r.is(one))
    if (!tier) throw r.fault(`A tier is needed here: ${tiers.join(', ')}.`)
    found.push(tier)
    r.next++
  } while (r.take(','))
  return { kind: 'tier', of: tiers.filter((one) => found.includes(one)) }
}
