import { mergeLabels } from '~~/database/labels'
import { labelMergeInput } from '~~/shared/label-inputs'

/** Merges a label into another one. */
export default defineEventHandler(async (event) => {
  const { into } = await readInput(event, labelMergeInput)
  if (!mergeLabels(satchel().db, idOf(event), into)) throw refused('Choose another label.')
  return { ok: true }
})
