import { isDay } from '../time'
import { tiers, type Tier } from '../standing'
import {
  isText,
  MOST_DAYS,
  type Comparison,
  type NumberComparison,
  type TextComparison,
  type TimeComparison,
} from './comparison'
import { fold } from './fold'
import type { Catalog } from './ready'
import type { Condition, MailAct, Rule, Times } from './rule'
import { tidyRule } from './tidy'
import { RuleTextError, tokensOf, type Token } from './tokens'
import { firstWords } from './write'

export type ParsedRule =
  { ok: true; rule: Rule } | { ok: false; message: string; at: number; length: number }

/**
 * Reads the text of a rule. `and` binds closer than `or`; parentheses group.
 *
 *     rule      = all { "or" all }
 *     all       = part { "and" part }
 *     part      = "not" part | "neither" part { "nor" part } | "(" rule ")" | "everyone" | "nobody" | condition
 *
 * What conditions there are stands in docs/users.md; an error points at the word it is about.
 */
export function parseRule(text: string, catalog: Catalog): ParsedRule {
  try {
    if (text.length > 20_000) throw new RuleTextError('This is too long for a rule.', 20_000, 1)
    return { ok: true, rule: tidyRule(new Parser(tokensOf(text), catalog).whole()) }
  } catch (error) {
    if (error instanceof RuleTextError)
      return { ok: false, message: error.message, at: error.at, length: error.length }
    throw error
  }
}

class Parser {
  private next = 0
  private depth = 0
  constructor(
    private readonly tokens: Token[],
    private readonly catalog: Catalog,
  ) {}

  whole(): Rule {
    if (this.tokens.length === 1)
      throw this.fault('Write a rule, such as: joined in the last 30 days.')
    const rule = this.any()
    const left: Token = this.token
    if (left.kind !== 'end')
      throw this.fault(`“${left.text}” can’t follow here; “and” or “or” may be missing.`)
    return rule
  }

  private any(): Rule {
    const of = [this.all()]
    while (this.take('or')) of.push(this.all())
    return of.length === 1 ? of[0]! : { kind: 'any', of }
  }

  private all(): Rule {
    const of = [this.part()]
    while (this.take('and')) of.push(this.part())
    return of.length === 1 ? of[0]! : { kind: 'all', of }
  }

  private part(): Rule {
    if (++this.depth > 60) throw this.fault('This rule is nested too deep.')
    try {
      if (this.take('not')) return { kind: 'none', of: [this.part()] }
      if (this.take('neither')) {
        const of = [this.part()]
        while (this.take('nor')) of.push(this.part())
        return { kind: 'none', of }
      }
      if (this.take('everyone')) return { kind: 'all', of: [] }
      if (this.take('nobody')) return { kind: 'any', of: [] }
      if (this.take('(')) {
        const rule = this.any()
        this.expect(')')
        return rule
      }
      return this.condition()
    } finally {
      this.depth--
    }
  }

  private condition(): Condition {
    const start = this.next
    const field = this.field()
    if (field !== null) return { kind: 'field', key: field, test: this.comparison() }
    const word = this.token.kind === 'word' ? fold(this.token.text) : ''
    this.next++
    switch (word) {
      case 'joined':
        if (this.take('list')) return this.list('subscribed')
        return { kind: 'joined', when: this.time() }
      case 'on':
        this.expect('list')
        return this.list('subscribed')
      case 'pending':
        this.expect('on')
        this.expect('list')
        return this.list('pending')
      case 'left':
        this.expect('list')
        return this.list('unsubscribed')
      case 'tagged':
        return { kind: 'tagged', tagId: this.named(this.catalog.tags, 'tag') }
      case 'address':
      case 'domain': {
        const at = this.next
        const test = this.comparison()
        if (!('text' in test || 'texts' in test) || test.is.startsWith('includes'))
          throw this.fault(
            'An address is compared as text: is, contains, starts with, ends with.',
            at,
          )
        return {
          kind: 'address',
          part: word === 'domain' ? 'domain' : 'whole',
          test: test as TextComparison,
        }
      }
      case 'was':
        this.expect('sent')
        return this.mail('sent')
      case 'received':
        return this.mail('delivered')
      case 'opened':
      case 'clicked':
        return this.mail(word)
      case 'bounced':
        this.expect('on')
        return this.mail('bounced')
      case 'bought':
        return this.orders('count')
      case 'spent':
        return this.orders('money')
      case 'first':
      case 'last':
        this.expect('bought')
        return { kind: 'ordered', which: word, when: this.time() }
      case 'did':
        return this.event()
      case 'in':
        this.expect('segment')
        return {
          kind: 'segment',
          segmentId: this.named(
            new Map([...this.catalog.segments].map(([id, { name }]) => [id, name])),
            'segment',
          ),
        }
      case 'tier':
        return this.tier()
      default: {
        this.next = start
        throw this.token.kind === 'end'
          ? this.fault('Something is missing at the end.')
          : this.fault(
              `Nothing is known by “${this.token.text}”: no condition and no field begins so.`,
            )
      }
    }
  }

  /** A field by its name, as words or quoted, or by its key; null where none begins here. */
  private field(): string | null {
    const { fields } = this.catalog
    const named = (name: string) =>
      [...fields].filter(([, field]) => fold(field.name) === fold(name)).map(([key]) => key)
    if (this.token.kind === 'string') {
      const [key] = named(this.token.text)
      if (key === undefined) throw this.fault(`There is no field “${this.token.text}”.`)
      this.next++
      return key
    }
    if (this.token.kind !== 'word') return null
    const follows = this.tokens[this.next + 1]!
    if (fold(this.token.text) === 'field' && follows.text.startsWith('#')) {
      this.next += 2
      return follows.text.slice(1)
    }
    if (firstWords.has(fold(this.token.text))) return null
    for (let words = 6; words > 0; words--) {
      const run = this.tokens.slice(this.next, this.next + words)
      if (run.length < words || run.some((token) => token.kind !== 'word')) continue
      const [key] = named(run.map((token) => token.text).join(' '))
      if (key === undefined) continue
      this.next += words
      return key
    }
    return null
  }

  private comparison(): Comparison {
    if (this.take('contains')) return { is: 'contains', text: this.string() }
    if (this.take('includes')) return { is: 'includes', text: this.string() }
    if (this.take('starts')) {
      this.expect('with')
      return { is: 'starts', text: this.string() }
    }
    if (this.take('ends')) {
      this.expect('with')
      return { is: 'ends', text: this.string() }
    }
    if (this.take('does')) {
      this.expect('not')
      this.expect('include')
      return { is: 'includes-not', text: this.string() }
    }
    if (this.take('has')) {
      this.expect('its')
      this.expect('anniversary')
      if (this.take('today')) return { is: 'anniversary', days: 0 }
      this.expect('within')
      return { is: 'anniversary', days: this.days(366) }
    }
    this.expect('is')
    for (const is of ['empty', 'known', 'yes', 'no'] as const) if (this.take(is)) return { is }
    if (this.take('one')) {
      this.expect('of')
      const texts = [this.string()]
      while (this.take(',')) texts.push(this.string())
      return { is: 'one-of', texts }
    }
    if (this.token.kind === 'string') return { is: 'equal', text: this.string() }
    if (this.is('not') && this.tokens[this.next + 1]!.kind === 'string') {
      this.next++
      return { is: 'not-equal', text: this.string() }
    }
    if (['before', 'after', 'on', 'in'].some((word) => this.is(word))) return this.time()
    return this.number(0)
  }

  private number(digits: number): NumberComparison {
    const value = () => {
      const token = this.token
      if (token.kind !== 'number') throw this.fault('A number is needed here.')
      this.next++
      const number = Number(token.text)
      return digits ? Math.round(number * 10 ** digits) : number
    }
    if (this.take('between')) {
      const from = value()
      this.expect('and')
      return { is: 'between', from, to: value() }
    }
    const than = this.take('not')
      ? 'not-equal'
      : this.take('under')
        ? 'under'
        : this.take('over')
          ? 'over'
          : 'equal'
    return { is: 'number', than, number: value() }
  }

  private time(): TimeComparison {
    if (this.take('in')) {
      this.expect('the')
      const is = this.take('next') ? 'next-days' : 'last-days'
      if (is === 'last-days') this.expect('last')
      return { is, days: this.days() }
    }
    for (const is of ['before', 'after', 'on'] as const) {
      if (!this.take(is)) continue
      const { kind, text } = this.token
      if (kind !== 'day' || !isDay(text))
        throw this.fault('A day is needed here, such as 2026-11-23.')
      this.next++
      return { is, day: text }
    }
    throw this.fault('A time is needed here: in the last 30 days, before, after or on a day.')
  }

  private days(most = MOST_DAYS): number {
    const days = this.count(1, most)
    if (!this.take('days')) this.expect('day')
    return days
  }

  private count(least: number, most: number): number {
    const number = Number(this.token.text)
    if (
      this.token.kind !== 'number' ||
      !Number.isSafeInteger(number) ||
      number < least ||
      number > most
    )
      throw this.fault(`A whole number from ${least} to ${most} is needed here.`)
    this.next++
    return number
  }

  private times(): Times {
    const is = this.is('at')
      ? this.tokens[this.next + 1]!.text === 'most'
        ? 'at-most'
        : 'at-least'
      : this.is('exactly')
        ? 'exactly'
        : null
    if (is === null) return { is: 'at-least', n: 1 }
    if (is === 'exactly') this.next++
    else {
      this.next++
      this.expect(is === 'at-most' ? 'most' : 'least')
    }
    const n = this.count(0, 1_000_000)
    if (!this.take('times')) this.expect('time')
    return { is, n }
  }

  private within(): number | null {
    if (!this.is('in') || fold(this.tokens[this.next + 1]!.text) !== 'the') return null
    const when = this.time()
    if (when.is !== 'last-days') throw this.fault('Only “in the last … days” is known here.')
    return when.days
  }

  private list(state: 'pending' | 'subscribed' | 'unsubscribed'): Condition {
    const listId = this.named(this.catalog.lists, 'list')
    const since = ['before', 'after', 'on', 'in'].some((word) => this.is(word)) ? this.time() : null
    const way = this.take('by') ? this.string() : null
    return { kind: 'on-list', listId, state, since, way }
  }

  private mail(did: MailAct): Condition {
    const of = this.which()
    const times = this.times()
    return { kind: 'mail', did, of, times, withinDays: this.within() }
  }

  private which(): Extract<Condition, { kind: 'mail' }>['of'] {
    if (this.take('any')) {
      this.expect('mailing')
      return { which: 'any' }
    }
    if (this.take('the')) {
      this.expect('last')
      const n = this.count(1, 1_000)
      this.expect('mailings')
      return { which: 'last', n }
    }
    let link: number | null = null
    if (this.take('link')) {
      link = this.count(0, 100_000)
      this.expect('of')
    }
    this.expect('mailing')
    return { which: 'mailing', id: this.named(this.catalog.mailings, 'mailing'), link }
  }

  private orders(what: 'count' | 'money'): Condition {
    const test = this.number(what === 'money' ? this.catalog.moneyDigits : 0)
    if (what === 'count' && !this.take('times')) this.expect('time')
    let product: string | null = null
    let category: string | null = null
    if (this.take('on')) {
      this.expect('product')
      product = this.string()
    }
    if (this.is('in') && fold(this.tokens[this.next + 1]!.text) === 'category') {
      this.next += 2
      category = this.string()
    }
    return { kind: 'orders', what, test, product, category, withinDays: this.within() }
  }

  private event(): Condition {
    const name = this.string()
    const times = this.times()
    const withinDays = this.within()
    if (!this.take('where')) return { kind: 'event', name, times, withinDays, where: null }
    const at = this.next
    const property = this.string()
    if (!/^[\w .-]{1,60}$/.test(property))
      throw this.fault('A property has letters, figures, spaces, dots and hyphens only.', at)
    return { kind: 'event', name, times, withinDays, where: { property, test: this.comparison() } }
  }

  private tier(): Condition {
    this.expect('is')
    const found: Tier[] = []
    do {
      const tier = tiers.find((one) => this.is(one))
      if (!tier) throw this.fault(`A tier is needed here: ${tiers.join(', ')}.`)
      found.push(tier)
      this.next++
    } while (this.take(','))
    return { kind: 'tier', of: tiers.filter((one) => found.includes(one)) }
  }

  /** Something by its name in quotes, or by its number. */
  private named(names: ReadonlyMap<number, string>, what: string): number {
    const { kind, text } = this.token
    if (kind === 'sign' && /^#\d+$/.test(text)) {
      this.next++
      return Number(text.slice(1))
    }
    if (kind !== 'string') throw this.fault(`The name of a ${what} is needed here, in quotes.`)
    const found = [...names].filter(([, name]) => fold(name) === fold(text))
    if (found.length === 0) throw this.fault(`There is no ${what} “${text}”.`)
    if (found.length > 1)
      throw this.fault(
        `There are several ${what}s “${text}”: write ${found.map(([id]) => `#${id}`).join(' or ')}.`,
      )
    this.next++
    return found[0]![0]
  }

  private string(): string {
    const { kind, text } = this.token
    if (kind !== 'string' || !isText(text)) throw this.fault('A text in quotes is needed here.')
    this.next++
    return text
  }

  private get token(): Token {
    return this.tokens[this.next]!
  }

  private is(text: string): boolean {
    return (
      (this.token.kind === 'word' || this.token.kind === 'sign') && fold(this.token.text) === text
    )
  }

  private take(text: string): boolean {
    if (!this.is(text)) return false
    this.next++
    return true
  }

  private expect(text: string) {
    if (!this.take(text)) throw this.fault(`“${text}” is missing here.`)
  }

  private fault(message: string, at = this.next): RuleTextError {
    const token = this.tokens[at]!
    return new RuleTextError(message, token.at, token.length)
  }
}
