import { readFileSync } from 'node:fs'

/** Clock ticks a second as the kernel counts them for programs; 100 on every Linux that Node runs on. */
const TICKS = 100

/** What a process has spent on the processor so far, ms; null where the system does not tell (it is not Linux, or gone). */
export function processorTime(pid: number): number | null {
  try {
    // proc(5): the name in brackets may hold anything; user and system time are the 12th and 13th after it.
    const stat = readFileSync(`/proc/${pid}/stat`, 'latin1')
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ')
    return ((Number(fields[11]) + Number(fields[12])) / TICKS) * 1_000
  } catch {
    return null
  }
}
