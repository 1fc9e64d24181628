import { readdir, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { DAY, HOUR } from '../core/time'
import { deleteSomeOver, importFilesInUse } from '../database/account'
import type { Engine, Work } from './engine'

/** A file that nobody began to import is kept for so long, by the host's clock. */
const UNUSED = DAY

/** Deletes what is not to be kept any longer (core/retention), once an hour and as long as there is more. */
export const retentionKeeper = (): Work => {
  let next = 0
  return async (engine) => {
    const { db, clock, hostClock } = engine
    if (hostClock() < next) return false
    const more = deleteSomeOver(db, { now: clock(), host: hostClock() })
    if (more) return true
    await deleteImportFiles(engine)
    next = hostClock() + HOUR
    return false
  }
}

async function deleteImportFiles({ db, clock, hostClock, settings }: Engine) {
  const folder = join(settings.data, 'imports')
  const used = importFilesInUse(db, clock())
  for (const name of await readdir(folder).catch(() => [])) {
    const path = join(folder, name)
    if (used.has(path)) continue
    const { mtimeMs } = await stat(path)
    if (mtimeMs < hostClock() - UNUSED) await rm(path, { force: true })
  }
}
