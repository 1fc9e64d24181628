import { sql, type SqlBool } from 'kysely'
import type { Names } from '../names'
import { isWhole } from '../values/comparison'
import type { TokenReader } from '../values/token-reader'
import { named } from '../values/write'
import type { ConditionKind } from './kind'

/** By which way somebody came on file. */
export interface CameBy {
  kind: 'source'
  from: Way
  /** By which import; null: any. */
  importId: number | null
}

/** `unknown`: before Satchel kept it. */
export type Way = (typeof ways)[number]
export const ways = ['import', 'form', 'api', 'hand', 'unknown'] as const

export const source: ConditionKind<CameBy> = {
  read({ from, importId = null }) {
    return ways.includes(from as Way) &&
      (importId === null || (from === 'import' && isWhole(importId, 1)))
      ? { kind: 'source', from: from as Way, importId: importId as number | null }
      : null
  },
  ready: (of, { imports }) =>
    of.importId === null || imports.has(of.importId) ? of : 'The import asked for here is gone.',
  sql({ from, importId }) {
    if (from === 'import' && importId !== null)
      return ofSource(sql`p.source = ${`import:${importId}`}`)
    return {
      import: ofSource(sql`p.source like 'import:%'`),
      form: ofSource(sql`p.source like 'form:%'`),
      api: ofSource(sql`p.source = 'api'`),
      hand: ofSource(sql`p.source = 'by hand' or p.source like 'by hand:%'`),
      unknown: ofSource(sql`p.source is null`),
    }[from]
  },
  predicate({ from, importId }) {
    if (importId !== null) return (person) => person.source === `import:${importId}`
    return (person) => wayOf(person.source) === from
  },
  fact(_, { source: found }, { names }) {
    const way = wayOf(found)
    if (way === 'unknown' || way === null) return 'not known'
    if (way === 'api') return 'by the API'
    if (way === 'hand') return found!
    if (way === 'form') return `by the form “${found!.slice('form:'.length).trim()}”`
    const name = names.imports.get(Number(found!.slice('import:'.length)))
    return name === undefined ? 'by an import' : `by the import “${name}”`
  },
  phrases: [{ begins: 'came by', read: parse }],
  write({ from, importId }, { imports }) {
    const which = importId === null ? '' : ` ${named(importId, imports)}`
    return from === 'unknown' ? 'came by an unknown way' : `came by ${from}${which}`
  },
  offers: ({ imports }) => [
    {
      words: 'Came by an import',
      also: 'imported file csv source',
      of: { kind: 'source', from: 'import', importId: null },
    },
    {
      words: 'Came by a form',
      also: 'sign-up opt-in source',
      of: { kind: 'source', from: 'form', importId: null },
    },
    {
      words: 'Came by the API',
      also: 'program source shop',
      of: { kind: 'source', from: 'api', importId: null },
    },
    {
      words: 'Came by hand',
      also: 'added manually source',
      of: { kind: 'source', from: 'hand', importId: null },
    },
    ...imports.map(({ id, name }) => ({
      words: `Came by the import “${name}”`,
      also: 'imported file csv source',
      of: { kind: 'source' as const, from: 'import' as const, importId: id },
      many: true as const,
    })),
  ],
}

function ofSource(is: ReturnType<typeof sql>) {
  return sql<SqlBool>`exists (select 1 from people p where p.id = facts.person_id and (${is}))`
}

/** The way of what is kept as `people.source`. */
function wayOf(kept: string | null): Way | null {
  if (kept === null) return 'unknown'
  if (kept === 'api') return 'api'
  if (/^import:/i.test(kept)) return 'import'
  if (/^form:/i.test(kept)) return 'form'
  return kept === 'by hand' || /^by hand:/i.test(kept) ? 'hand' : null
}

function parse(r: TokenReader, { imports }: Names): CameBy {
  for (const from of ['api', 'hand', 'form'] as const)
    if (r.take(from)) return { kind: 'source', from, importId: null }
  if (r.areWords('the', 'api')) {
    r.next += 2
    return { kind: 'source', from: 'api', importId: null }
  }
  if (r.areWords('an', 'unknown', 'way')) {
    r.next += 3
    return { kind: 'source', from: 'unknown', importId: null }
  }
  if (r.take('an') || r.is('import')) {
    r.expect('import')
    const isNamed = r.token.kind === 'string' || r.token.text.startsWith('#')
    return {
      kind: 'source',
      from: 'import',
      importId: isNamed ? r.named(imports, 'import') : null,
    }
  }
  throw r.fault('A way is needed here: import, form, api, hand.')
}
