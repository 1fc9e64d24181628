import type { ImportEntry } from '../core/people'
import { listsOf, mergedValues, noCounts, type Outcome, type UnderstoodRow } from './import-rows'
import { importStatements } from './import-statements'
import type { Import } from './imports'
import type { Database } from './query'

/**
 * Counts what an import would do, and writes nothing. `counts` tells at any time how it stands; of the
 * rows that would be refused or are doubtful the first are kept.
 */
export function importCounter(db: Database, of: Import) {
  const statements = importStatements(db, of)
  const counts = noCounts()
  const notices: { row: number; verdict: 'refused' | 'doubtful'; reason: string; cells: string }[] =
    []
  const met = new Set<string>()
  return {
    counts,
    notices,
    take(rows: readonly UnderstoodRow[]) {
      for (const item of rows) {
        const refused = 'refused' in item ? item.refused : null
        const reason = refused ?? ('entry' in item ? item.entry.cautions.join(' ') : '')
        if (reason !== '' && notices.length < 200)
          notices.push({
            row: item.row,
            verdict: refused === null ? 'doubtful' : 'refused',
            reason,
            cells: JSON.stringify(item.cells),
          })
        counts[refused === null && 'entry' in item ? outcomeOf(item.entry) : 'refused']++
      }
    },
  }

  function outcomeOf(entry: ImportEntry): Outcome {
    const found = statements.find.one({ normal: entry.normal })
    if (found ? of.mode === 'add' : of.mode === 'update') return 'skipped'
    const repeated = met.has(entry.normal)
    met.add(entry.normal)
    if (!found) return repeated ? 'repeated' : 'added'
    if (repeated) return 'repeated'
    if (!isWelcome(found.id, entry)) return 'never_mail'
    return mergedValues(found, entry.values) ? 'changed' : 'unchanged'
  }

  function isWelcome(person: number, entry: ImportEntry): boolean {
    if (statements.aside.one({ person })) return false
    return listsOf(of, entry).every(
      (list) => statements.subscription.one({ person, list })?.state !== 'unsubscribed',
    )
  }
}
