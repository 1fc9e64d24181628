import { mkdirSync, readdirSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

/**
 * Signs of life of the engines of a data folder: a file each, touched every second. They are not
 * in the database, where a write a second would tell every page that something has changed.
 */
export function beat(data: string, engine: string, hostNow: number) {
  const file = join(folderOf(data), engine)
  try {
    utimesSync(file, hostNow / 1000, hostNow / 1000)
  } catch {
    writeFileSync(file, '')
    utimesSync(file, hostNow / 1000, hostNow / 1000)
  }
}

/** Engines that gave a sign of life within `within` ms of `hostNow`. Forgets those of long ago. */
export function liveEngines(data: string, hostNow: number, within: number): string[] {
  const folder = folderOf(data)
  return readdirSync(folder).filter((engine) => {
    const at = statSync(join(folder, engine), { throwIfNoEntry: false })?.mtimeMs ?? 0
    if (at < hostNow - 86_400_000) rmSync(join(folder, engine), { force: true })
    return at > hostNow - within
  })
}

export function engineStops(data: string, engine: string) {
  rmSync(join(folderOf(data), engine), { force: true })
}

function folderOf(data: string): string {
  const folder = join(data, 'engines')
  mkdirSync(folder, { recursive: true })
  return folder
}
