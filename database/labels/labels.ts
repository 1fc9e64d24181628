import { labelName, MOST_LABELS, MOST_ON_ONE, type Labelled } from '../../core/labels'
import { all, one, q, run, transact, type Database } from '../query'
import { markOf } from '../versions'

export interface Label {
  id: number
  name: string
}

/** Where the things of each kind stand. */
const tables = { mailing: 'mailings', sequence: 'sequences', 'sign-up': 'sign_ups' } as const

const keyOf = (name: string) => labelName(name).toLowerCase()
const there = q.selectFrom('labels').where('deleted_at', 'is', null)

/** All labels by their name. */
export const readLabels = (db: Database): Label[] =>
  all(db, there.select(['id', 'name']).orderBy('key'))

/** Those whose name has these words. */
export const labelsNamed = (db: Database, words: string): Label[] =>
  readLabels(db).filter(({ name }) => name.toLowerCase().includes(words.toLowerCase()))

/** Which label is on what. Of a sign-up that was deleted and can still be restored it is not told. */
export const labelUses = (db: Database): { labelId: number; kind: Labelled; itemId: number }[] =>
  all(
    db,
    q
      .selectFrom('label_uses')
      .innerJoin('labels', 'labels.id', 'label_uses.label_id')
      .leftJoin('sign_ups', (join) =>
        join.onRef('sign_ups.id', '=', 'label_uses.item_id').on('label_uses.kind', '=', 'sign-up'),
      )
      .select(['label_uses.label_id as labelId', 'label_uses.kind', 'label_uses.item_id as itemId'])
      .where('labels.deleted_at', 'is', null)
      .where('sign_ups.deleted_at', 'is', null)
      .orderBy('labels.key'),
  )

/** The mark by which two who change a label are told apart; undefined: there is no such label. */
export function labelVersion(db: Database, id: number): string | undefined {
  const label = one(db, there.select('name').where('id', '=', id))
  return label && markOf([label.name])
}

/**
 * Puts the label of this name on something; it is made where there is none. `gone`: what it was put on is not there;
 * `many`: the account has as many labels as it may, or the thing has; nothing is changed then.
 */
export function putLabel(
  db: Database,
  name: string,
  kind: Labelled,
  itemId: number,
): Label | 'gone' | 'many' {
  return transact(db, () => {
    if (!one(db, q.selectFrom(tables[kind]).select('id').where('id', '=', itemId))) return 'gone'
    const known = one(db, there.select(['id', 'name']).where('key', '=', keyOf(name)))
    const of = labelsOn(db, kind, itemId)
    if (known && of.includes(known.id)) return known
    if (of.length >= MOST_ON_ONE || (!known && readLabels(db).length >= MOST_LABELS)) return 'many'
    const label = known ?? { id: addLabel(db, name), name: labelName(name) }
    const use = { kind, item_id: itemId, label_id: label.id }
    run(db, q.insertInto('label_uses').values(use))
    return label
  })
}

const labelsOn = (db: Database, kind: Labelled, itemId: number): number[] =>
  all(
    db,
    q
      .selectFrom('label_uses')
      .innerJoin('labels', 'labels.id', 'label_uses.label_id')
      .select('label_uses.label_id as id')
      .where('label_uses.kind', '=', kind)
      .where('label_uses.item_id', '=', itemId)
      .where('labels.deleted_at', 'is', null),
  ).map(({ id }) => id)

const addLabel = (db: Database, name: string): number =>
  run(db, q.insertInto('labels').values({ name: labelName(name), key: keyOf(name) })).id

/** Takes a label off something; the label stays. */
export function takeLabel(db: Database, id: number, kind: Labelled, itemId: number) {
  run(
    db,
    q
      .deleteFrom('label_uses')
      .where('label_id', '=', id)
      .where('kind', '=', kind)
      .where('item_id', '=', itemId),
  )
}

/** A copy has the labels of what it was copied from. */
export function copyLabels(db: Database, kind: Labelled, from: number, to: number) {
  run(
    db,
    q
      .insertInto('label_uses')
      .columns(['kind', 'item_id', 'label_id'])
      .expression((eb) =>
        eb
          .selectFrom('label_uses')
          .select(['kind', eb.val(to).as('item_id'), 'label_id'])
          .where('kind', '=', kind)
          .where('item_id', '=', from),
      )
      .onConflict((c) => c.doNothing()),
  )
}

/** Renames a label. `taken`: another has the name; nothing is changed. */
export function changeLabel(db: Database, id: number, name: string): 'changed' | 'taken' | 'gone' {
  return transact(db, () => {
    const other = one(db, there.select('id').where('key', '=', keyOf(name)))
    if (other && other.id !== id) return 'taken'
    const set = { name: labelName(name), key: keyOf(name) }
    const change = q.updateTable('labels').set(set).where('id', '=', id)
    return run(db, change.where('deleted_at', 'is', null)).changes ? 'changed' : 'gone'
  })
}

/** Merges a label into another: what has it has the other. */
export function mergeLabels(db: Database, gone: number, into: number): boolean {
  return transact(db, () => {
    const both = all(db, there.select('id').where('id', 'in', [gone, into]))
    if (gone === into || both.length < 2) return false
    run(
      db,
      q
        .insertInto('label_uses')
        .columns(['kind', 'item_id', 'label_id'])
        .expression((eb) =>
          eb
            .selectFrom('label_uses')
            .select(['kind', 'item_id', eb.val(into).as('label_id')])
            .where('label_id', '=', gone),
        )
        .onConflict((c) => c.doNothing()),
    )
    return run(db, q.deleteFrom('labels').where('id', '=', gone)).changes === 1
  })
}

/**
 * Deletes a label, or (null) gives it back with all it was on. `taken`: meanwhile another has its name; `gone`: it is
 * not there.
 */
export function setLabelDeleted(
  db: Database,
  id: number,
  at: number | null,
): 'changed' | 'taken' | 'gone' {
  return transact(db, () => {
    const label = one(db, q.selectFrom('labels').selectAll().where('id', '=', id))
    if (!label || (label.deleted_at === null) === (at === null)) return 'gone'
    if (at === null && one(db, there.select('id').where('key', '=', label.key))) return 'taken'
    run(db, q.updateTable('labels').set({ deleted_at: at }).where('id', '=', id))
    return 'changed'
  })
}
