import type { ImportEntry } from '../../core/people'
import { mayComeIn } from '../../core/sequences'
import { listsOf, mergedValues, noCounts, type Outcome, type UnderstoodRow } from './rows'
import { importStatements, noteRow } from './statements'
import type { Import } from './imports'
import { transact, type Database } from '../query'
import { roundsOf, startedByJoining, type Sequence } from '../sequences'

/**
 * Counts what an import would do, and writes nothing but what is to be said of its rows. `counts` tells at any time how it
 * stands.
 */
export function importCounter(db: Database, of: Import) {
  const statements = importStatements(db, of)
  const counts = noCounts()
  const met = new Set<string>()
  const tagIds = new Map<string, number | null>()
  /** By list: the running sequences that joining it starts. */
  const startedBy = new Map<number, Sequence[]>()
  /** By sequence: how many would come into it. */
  const starting = new Map<number, { id: number; name: string; people: number }>()
  return {
    counts,
    /** The sequences that would start, and for how many. Who may not come in by a sequence's rule is only seen then. */
    sequences: () => [...starting.values()],
    take(rows: readonly UnderstoodRow[]) {
      transact(db, () => {
        for (const item of rows) {
          noteRow(statements, item)
          counts['entry' in item ? outcomeOf(item.entry) : 'refused']++
        }
      })
    },
  }

  function outcomeOf(entry: ImportEntry): Outcome {
    const found = statements.find.one({ normal: entry.normal })
    if (found ? of.mode === 'add' : of.mode === 'update') return 'skipped'
    const repeated = met.has(entry.normal)
    met.add(entry.normal)
    if (repeated) return 'repeated'
    if (!found) {
      countStarts(null, entry)
      return 'added'
    }
    if (!isWelcome(found.id, entry)) return 'never_mail'
    countStarts(found.id, entry)
    const changes =
      mergedValues(found, entry.values) ?? (getsTag(found.id, entry) || joinsList(found.id, entry))
    return changes ? 'changed' : 'unchanged'
  }

  function getsTag(person: number, entry: ImportEntry): boolean {
    const names = of.tag === null ? entry.tags : [...entry.tags, of.tag]
    return names.some((name) => {
      const tag = tagId(name)
      return tag === null || !statements.hasTag.one({ person, tag })
    })
  }

  function joinsList(person: number, entry: ImportEntry): boolean {
    return listsOf(of, entry).some(
      (list) => statements.subscription.one({ person, list })?.state !== 'subscribed',
    )
  }

  function tagId(name: string): number | null {
    let id = tagIds.get(name)
    if (id === undefined) tagIds.set(name, (id = statements.tagNamed.one({ name })?.id ?? null))
    return id
  }

  function countStarts(person: number | null, entry: ImportEntry) {
    for (const list of listsOf(of, entry)) {
      if (!startedBy.has(list)) startedBy.set(list, startedByJoining(db, list))
      const sequences = startedBy.get(list)!
      if (sequences.length === 0) continue
      const state = person && statements.subscription.one({ person, list })?.state
      if (state === 'subscribed') continue
      for (const { id, name, map } of sequences) {
        if (person !== null && !mayComeIn(map.start.again, roundsOf(db, id, person), of.created_at))
          continue
        const counted = starting.get(id) ?? { id, name, people: 0 }
        starting.set(id, { ...counted, people: counted.people + 1 })
      }
    }
  }

  function isWelcome(person: number, entry: ImportEntry): boolean {
    if (statements.aside.one({ person })) return false
    return listsOf(of, entry).every(
      (list) => statements.subscription.one({ person, list })?.state !== 'unsubscribed',
    )
  }
}
