import { sql } from 'kysely'
import { familyOf, readComparison, type TextComparison } from '../values/comparison'
import { parseComparison } from '../values/parse'
import { compare, ofPerson } from '../values/sql'
import { valueTest } from '../values/holds'
import type { TokenReader } from '../values/token-reader'
import { writeComparison } from '../values/write'
import type { ConditionKind } from './kind'

/** What somebody's address is, or its domain. */
export interface Address {
  kind: 'address'
  part: 'whole' | 'domain'
  test: TextComparison
}

export const address: ConditionKind<Address> = {
  read(json) {
    const test = readComparison(json.test)
    return test && familyOf(test) === 'text' && (json.part === 'whole' || json.part === 'domain')
      ? { kind: 'address', part: json.part, test: test as TextComparison }
      : null
  },
  ready: (of) => of,
  sql: ({ part, test }, asked) =>
    compare(ofPerson(part === 'whole' ? sql`normal` : sql`domain`), 'text', test, asked),
  predicate({ part, test }, asked) {
    const passes = valueTest('text', test, asked)
    return part === 'whole' ? (person) => passes(person.normal) : (person) => passes(person.domain)
  },
  fact: ({ part }, person) => (part === 'whole' ? person.normal : person.domain),
  phrases: [
    { begins: 'address', read: (r) => parse(r, 'whole') },
    { begins: 'domain', read: (r) => parse(r, 'domain') },
  ],
  write: ({ part, test }) => `${part === 'whole' ? 'address' : 'domain'} ${writeComparison(test)}`,
  offers: ({ domains }) => [
    {
      words: 'Domain of the address',
      also: 'provider mailbox host',
      of: {
        kind: 'address',
        part: 'domain',
        test: { is: 'equal', text: domains[0]?.domain ?? 'example.com' },
      },
    },
    {
      words: 'Address contains',
      also: 'e-mail mail',
      of: { kind: 'address', part: 'whole', test: { is: 'contains', text: 'info' } },
    },
    ...domains.map(({ domain }) => ({
      words: `Domain is ${domain}`,
      also: 'provider mailbox host address',
      of: {
        kind: 'address' as const,
        part: 'domain' as const,
        test: { is: 'equal' as const, text: domain },
      },
      many: true as const,
    })),
  ],
}

function parse(r: TokenReader, part: Address['part']): Address {
  const at = r.next
  const test = parseComparison(r)
  if (familyOf(test) !== 'text')
    throw r.fault('An address is compared as text: is, contains, starts with, ends with.', at)
  return { kind: 'address', part, test: test as TextComparison }
}
