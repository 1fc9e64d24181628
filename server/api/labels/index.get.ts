import { labelledKinds } from '~~/core/labels'
import { labelUses, labelVersion, readLabels } from '~~/database/labels'

/** All labels, each with what it is on. */
export default defineEventHandler(() => {
  const { db } = satchel()
  const labels = readLabels(db).map(({ id, name }) => ({
    ...{ id, name, version: labelVersion(db, id)! },
    on: Object.fromEntries(labelledKinds.map((kind) => [kind, [] as number[]])),
  }))
  const byId = new Map(labels.map((label) => [label.id, label]))
  for (const { labelId, kind, itemId } of labelUses(db)) byId.get(labelId)!.on[kind]!.push(itemId)
  return labels
})
