import { basename, dirname, join } from 'node:path'

/** The file of a process of the build: beside the engine's, or beside the web process's folder. */
export function processFile(name: string): string {
  const here = dirname(process.argv[1]!)
  const folder = basename(here) === 'processes' ? here : join(here, '..', 'processes')
  return join(folder, `${name}.mjs`)
}
