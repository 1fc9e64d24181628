import { sql, type SqlBool } from 'kysely'
import { languageKeys, languageNamed, languageOf, languages } from '../../people/language'
import type { PersonFacts } from '../person-facts'
import type { TokenReader } from '../values/token-reader'
import type { ConditionKind } from './kind'

/** Which language somebody reads, by a field of theirs or the country of their address. */
export interface Reads {
  kind: 'language'
  /** Codes (ISO 639-1). */
  of: string[]
}

export const language: ConditionKind<Reads> = {
  read: ({ of }) =>
    Array.isArray(of) && of.length > 0 && of.every((one) => languages.includes(one))
      ? { kind: 'language', of: languages.filter((one) => of.includes(one)) }
      : null,
  ready: (of) => of,
  sql({ of }) {
    const said = sql.join(languageKeys.map((key) => sql`json_extract(p.fields, ${`$.${key}`})`))
    return sql<SqlBool>`exists (select 1 from people p where p.id = facts.person_id and language_of(coalesce(${said}), p.domain) in (${sql.join(of)}))`
  },
  predicate:
    ({ of }) =>
    (person) => {
      const read = readBy(person)
      return read !== null && of.includes(read)
    },
  fact(_, person) {
    const read = readBy(person)
    if (read === null) return 'not known'
    return languageKeys.some((key) => person.values[key] != null)
      ? `${read}, by what is on file`
      : `${read}, by the address`
  },
  phrases: [{ begins: 'language', read: parse }],
  write: ({ of }) => `language is ${of.join(', ')}`,
  offers: () => [
    {
      words: 'Language',
      also: 'reads speaks country locale english german french spanish dutch italian',
      of: { kind: 'language', of: ['en'] },
    },
  ],
}

function readBy({ values, domain }: PersonFacts): string | null {
  const said = languageKeys.map((key) => values[key]).find((value) => value != null)
  return languageOf(said, domain)
}

function parse(r: TokenReader): Reads {
  r.expect('is')
  const found: string[] = []
  do {
    const code = languageNamed(r.token.text)
    if (r.token.kind === 'end' || code === null)
      throw r.fault(`A language is needed here: ${languages.join(', ')}.`)
    found.push(code)
    r.next++
  } while (r.take(','))
  return { kind: 'language', of: languages.filter((one) => found.includes(one)) }
}
