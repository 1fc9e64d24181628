import { spawnSync } from 'node:child_process'
import { cpSync, existsSync, mkdirSync, mkdtempSync, renameSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { BEGIN } from './moment.mjs'

/** Demo accounts that were made in this run, by size: each is made once, and copied for whoever wants one. */
const kept = () => process.env.SATCHEL_TEST_DEMOS ?? join(tmpdir(), `satchel-demos-${process.pid}`)

/** Fills a data folder with the demo account of so many people. */
export function copyDemo(people: number, data: string) {
  const whole = join(kept(), String(people))
  if (!existsSync(whole)) {
    const making = join(kept(), `${people}-making-${process.pid}`)
    mkdirSync(making, { recursive: true })
    const made = spawnSync(
      process.execPath,
      ['.output/processes/demo.mjs', making, '--size', String(people), '--now', String(BEGIN)],
      { encoding: 'utf8' },
    )
    if (made.status !== 0) throw new Error(made.stderr)
    // Where another test was faster, its account is as good.
    if (existsSync(whole)) rmSync(making, { recursive: true })
    else
      try {
        renameSync(making, whole)
      } catch {
        rmSync(making, { recursive: true, force: true })
      }
  }
  cpSync(whole, data, { recursive: true })
}

/** Before all tests, and after them (Vitest's global set-up). */
export default function setup() {
  const folder = mkdtempSync(join(tmpdir(), 'satchel-demos-'))
  process.env.SATCHEL_TEST_DEMOS = folder
  return () => rmSync(folder, { recursive: true, force: true })
}
