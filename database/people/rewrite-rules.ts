import { mapRules, type LetterDocument } from '../../core/letters'
import { mapConditions, readRule, type Condition } from '../../core/segments'
import { readMap, withRules, type Starting } from '../../core/sequences'
import { all, q, run, transact, type Database } from '../query'

/** Letters that have not begun to go out. */
const openLetters = q
  .selectFrom('letters')
  .innerJoin('mailings', 'mailings.letter_id', 'letters.id')
  .select(['letters.id', 'document'])
  .where('started_at', 'is', null)

/**
 * Changes conditions in every rule on file: those of segments, of sequences' starts, forks and goals, and of mailings that
 * have not begun and their letters. So that what a rule refers to can be joined to something else without a rule losing its sense.
 */
export function rewriteRules(
  db: Database,
  change: (part: Condition) => Condition,
  changeStart: (start: Starting) => Starting = (start) => start,
) {
  const next = (text: string): string | null => {
    const rule = readRule(JSON.parse(text))
    const changed = rule && JSON.stringify(mapConditions(rule, change))
    return changed === null || changed === JSON.stringify(rule) ? null : changed
  }
  const nextMap = (text: string): string | null => {
    const map = readMap(JSON.parse(text))
    const asked = map && withRules(map, (rule) => mapConditions(rule, change))
    const changed = asked && {
      ...asked,
      start: { ...asked.start, by: asked.start.by.map(changeStart) },
    }
    return changed && JSON.stringify(changed) !== JSON.stringify(map)
      ? JSON.stringify(changed)
      : null
  }
  transact(db, () => {
    for (const { id, rule } of all(db, q.selectFrom('segments').select(['id', 'rule']))) {
      const changed = next(rule)
      if (changed)
        run(
          db,
          q
            .updateTable('segments')
            .set((eb) => ({ rule: changed, version: eb('version', '+', 1) }))
            .where('id', '=', id),
        )
    }
    const open = q
      .selectFrom('mailings')
      .select(['id', 'rule', 'left_out'])
      .where('started_at', 'is', null)
    for (const mailing of all(db, open))
      for (const column of ['rule', 'left_out'] as const) {
        const changed = mailing[column] === null ? null : next(mailing[column])
        if (changed)
          run(
            db,
            q
              .updateTable('mailings')
              .set({ [column]: changed })
              .where('id', '=', mailing.id),
          )
      }
    for (const { id, map } of all(db, q.selectFrom('sequences').select(['id', 'map']))) {
      const changed = nextMap(map)
      if (changed) run(db, q.updateTable('sequences').set({ map: changed }).where('id', '=', id))
    }
    for (const { sequence_id, version, map } of all(
      db,
      q.selectFrom('sequence_versions').selectAll(),
    )) {
      const changed = nextMap(map)
      if (changed)
        run(
          db,
          q
            .updateTable('sequence_versions')
            .set({ map: changed })
            .where('sequence_id', '=', sequence_id)
            .where('version', '=', version),
        )
    }
    for (const { id, document } of all(db, openLetters)) {
      const letter = JSON.parse(document) as LetterDocument
      const changed = mapRules(letter, (rule) => mapConditions(rule, change))
      if (changed !== letter)
        run(
          db,
          q
            .updateTable('letters')
            .set((eb) => ({ document: JSON.stringify(changed), version: eb('version', '+', 1) }))
            .where('id', '=', id),
        )
    }
  })
}
