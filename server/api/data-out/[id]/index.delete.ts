import { rm } from 'node:fs/promises'
import { join } from 'node:path'
import { dataOutById, removeDataOut } from '~~/database/exports'
import { cancelJob } from '~~/database/jobs'

/** Takes away what was exported, or ends the work on it. */
export default defineEventHandler(async (event) => {
  const { db, data } = satchel()
  const out = dataOutById(db, idOf(event))
  if (!out) throw notFound('This file is gone.')
  if (out.job_id !== null) cancelJob(db, out.job_id)
  removeDataOut(db, out.id)
  await rm(join(data, 'data-out', `${out.id}.zip`), { force: true })
  return {}
})
