import { takeLabel } from '~~/database/labels'
import { labelOffInput } from '~~/shared/label-inputs'

/** Removes a label from something; the label stays. */
export default defineEventHandler(async (event) => {
  const { kind, itemId } = await readInput(event, labelOffInput)
  takeLabel(satchel().db, idOf(event), kind, itemId)
  return { ok: true }
})
