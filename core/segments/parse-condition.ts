import { tiers, type Tier } from '../standing'
import type { TextComparison } from './comparison'
import { fold } from './fold'
import { readComparison, readNumber, readTime, readTimes, readWithin } from './parse-comparison'
import type { Catalog } from './ready'
import type { Condition, MailAct } from './rule'
import type { TokenReader } from './token-reader'
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
    case 'inside':
    case 'finished':
    case 'never':
      if (word === 'never') r.expect('in')
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
  if (firstWords.has(fold(r.token.text))) return null
  for (let words = 6; words > 0; words--) {
    const run = r.tokens.slice(r.next, r.next + words)
    if (run.length < words || run.some((token) => token.kind !== 'word')) continue
    const [key] = named(run.map((token) => token.text).join(' '))
    if (key === undefined) continue
    r.next += words
    return key
  }
  return null
}

function readList(
  r: TokenReader,
  catalog: Catalog,
  state: 'pending' | 'subscribed' | 'unsubscribed',
): Condition {
  const listId = r.named(catalog.lists, 'list')
  const since = ['before', 'after', 'on', 'in'].some((word) => r.is(word)) ? readTime(r) : null
  const way = r.take('by') ? r.string() : null
  return { kind: 'on-list', listId, state, since, way }
}

function readMail(r: TokenReader, catalog: Catalog, did: MailAct): Condition {
  const of = readWhich(r, catalog)
  const times = readTimes(r)
  return { kind: 'mail', did, of, times, withinDays: readWithin(r) }
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
    const n = r.count(1, 1_000)
    r.expect('mailings')
    return { which: 'last', n }
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
  const test = readNumber(r, what === 'money' ? catalog.moneyDigits : 0)
  if (what === 'count' && !r.take('times')) r.expect('time')
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
