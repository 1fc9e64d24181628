import { sql } from 'kysely'
import { showFieldValue, type FieldKind, type FieldValue } from '../../people/fields'
import type { Names } from '../names'
import { familyOf, readComparison, type Comparison, type Family } from '../values/comparison'
import { fold } from '../values/fold'
import { parseComparison } from '../values/parse'
import { compare, compareJson, ofPerson } from '../values/sql'
import { valueTest } from '../values/holds'
import type { TokenReader } from '../values/token-reader'
import type { Token } from '../values/tokens'
import { quote, writeComparison } from '../values/write'
import type { ConditionKind, Offer } from './kind'

/** What somebody has for a field of the account. */
export interface HasField {
  kind: 'field'
  key: string
  test: Comparison
}

export type ReadyField = HasField & { family: Family }

/** Which family of values a field of a kind has. */
export const families: Record<FieldKind, Family> = {
  text: 'text',
  choice: 'text',
  link: 'text',
  number: 'number',
  date: 'day',
  yesno: 'yesno',
  choices: 'choices',
}

export const field: ConditionKind<HasField, ReadyField> = {
  read({ key, test: json }) {
    const test = readComparison(json)
    return test && typeof key === 'string' && /^[a-z_][a-z0-9_]{0,60}$/.test(key)
      ? { kind: 'field', key, test }
      : null
  },
  ready(of, { fields }) {
    const found = fields.get(of.key)
    if (!found) return `The field “${of.key}” is gone.`
    const [family, asked] = [families[found.kind], familyOf(of.test)]
    return asked === 'any' || asked === family
      ? { ...of, family }
      : `${found.name} is no longer a field that can be asked this.`
  },
  sql({ key, family, test }, asked) {
    if (key === 'first_name' || key === 'last_name')
      return compare(sql`nullif(${ofPerson(sql.ref(key))}, '')`, 'text', test, asked)
    return compareJson(sql`p.fields`, `$.${key}`, family, test, asked, ofPerson)
  },
  predicate({ key, family, test }, asked) {
    const passes = valueTest(family, test, asked)
    return (person) => passes(person.values[key])
  },
  fact({ key }, person) {
    const shown = showFieldValue(person.values[key] as FieldValue | null | undefined)
    return shown === '' ? 'nothing on file' : shown
  },
  // It begins with the name of the field: see `fieldAt`.
  phrases: [],
  write: ({ key, test }, names, taken) =>
    `${fieldName(key, names, taken)} ${writeComparison(test)}`,
  offers: ({ fields }) =>
    fields.flatMap(({ key, name, kind }): Offer<HasField>[] =>
      [...firstTests[kind], isMissing].map(([words, also, test]) => ({
        words: `${name} ${words}`,
        also,
        of: { kind: 'field', key, test },
      })),
    ),
}

type FirstTest = [words: string, also: string, test: Comparison]
const isMissing: FirstTest = ['is not known', 'empty missing no value', { is: 'empty' }]

/** With what one begins to ask a field of each kind; the text is chosen in the line. */
const firstTests: Record<FieldKind, FirstTest[]> = {
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

/** A condition on a field whose name (as words or quoted) or key begins here; null where none does. */
export function fieldAt(r: TokenReader, names: Names, taken: ReadonlySet<string>): HasField | null {
  const key = keyAt(r, names, taken)
  return key === null ? null : { kind: 'field', key, test: parseComparison(r) }
}

function keyAt(r: TokenReader, { fields }: Names, taken: ReadonlySet<string>): string | null {
  const called = (name: string) =>
    [...fields].filter(([, one]) => fold(one.name) === fold(name)).map(([key]) => key)
  if (r.token.kind === 'string') {
    const [key] = called(r.token.text)
    if (key === undefined) throw r.fault(`There is no field “${r.token.text}”.`)
    r.next++
    return key
  }
  if (r.token.kind !== 'word') return null
  const { follows } = r
  if (fold(r.token.text) === 'field' && follows.text.startsWith('#')) {
    r.next += 2
    return follows.text.slice(1)
  }
  // A field may begin as a condition does ("First kite", "Last name"): it is one where a comparison stands behind its name.
  const first = fold(r.token.text)
  for (let words = 6; words > 0; words--) {
    const run = r.tokens.slice(r.next, r.next + words)
    if (run.length < words || run.some((token) => token.kind !== 'word')) continue
    const [key] = called(run.map((token) => token.text).join(' '))
    if (key === undefined) continue
    const compared = beginsComparison(r.tokens[r.next + words])
    if (taken.has(first) && !(compared && (words > 1 || !comparedWords.has(first)))) continue
    r.next += words
    return key
  }
  return null
}

function beginsComparison(token: Token | undefined): boolean {
  return token?.kind === 'word' && comparing.has(fold(token.text))
}
/** Conditions that begin with one word and go on with a comparison. */
const comparedWords = new Set(['address', 'domain', 'tier', 'language'])
const comparing = new Set(['is', 'contains', 'includes', 'starts', 'ends', 'does', 'has'])

function fieldName(key: string, { fields }: Names, taken: ReadonlySet<string>): string {
  const name = fields.get(key)?.name
  const same = (other: { name: string }) => fold(other.name) === fold(name ?? '')
  if (name === undefined || [...fields.values()].filter(same).length > 1) return `field #${key}`
  const words = name.split(' ')
  const bare = words.every((word) => /^\p{L}[\p{L}\p{N}_]*$/u.test(word) && !verbs.has(fold(word)))
  return bare && !taken.has(fold(words[0]!)) ? name : quote(name)
}

const verbs = new Set([...comparing, 'and', 'or', 'nor'])
