import { appendFileSync, existsSync, readFileSync } from 'node:fs'

/** Whom the shop knows, by address: its register, a line each, to which whoever joins is added. */
export interface Customers {
  all(): readonly string[]
  add(address: string): void
}

/** So many are enough for a shop to be busy; a larger register is read up to there. */
const MOST = 50_000

/** Opens the register kept in a file; null where there is none. */
export function openCustomers(file: string | null): Customers | null {
  if (!file || !existsSync(file)) return null
  const known = readFileSync(file, 'utf8').split('\n').filter(Boolean).slice(0, MOST)
  return {
    all: () => known,
    add(address) {
      known.push(address)
      appendFileSync(file, `${address}\n`)
    },
  }
}
