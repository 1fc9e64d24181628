import { labelledKinds } from '~~/core/labels'
import { labelUses, labelVersion, readLabels } from '~~/database/labels'

/** All labels, each with what it is on. */
export default defineEventHandler(() => {
  const { db } = satchel()
  const uses = labelUses(db)
  return readLabels(db).map(({ id, name }) => {
    const of = uses.filter(({ labelId }) => labelId === id)
    const on = labelledKinds.map((kind) => [
      kind,
      of.filter((use) => use.kind === kind).map(({ itemId }) => itemId),
    ])
    return { id, name, version: labelVersion(db, id)!, on: Object.fromEntries(on) }
  })
})
