import { chmodSync, existsSync } from 'node:fs'
import { join } from 'node:path'
import { isMainThread } from 'node:worker_threads'

/** For its owner alone, a folder and a file. */
const FOLDER = 0o700
const FILE = 0o600

/**
 * What Satchel writes is readable by its owner alone: databases, exports, imported files, pictures. Files of earlier
 * versions, and of whoever copied one in, are made so here.
 */
export function keepPrivate(folder: string) {
  // Only a whole process has such a mask, no thread of it.
  if (isMainThread) process.umask(0o077)
  try {
    chmodSync(folder, FOLDER)
    for (const name of ['satchel.db', 'satchel.db-wal', 'satchel.db-shm'])
      if (existsSync(join(folder, name))) chmodSync(join(folder, name), FILE)
    for (const name of ['data-out', 'imports', 'engines', 'working-at'])
      if (existsSync(join(folder, name))) chmodSync(join(folder, name), FOLDER)
  } catch {
    // It belongs to somebody else, who lets us read it.
  }
}
