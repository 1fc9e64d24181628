import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { createInterface } from 'node:readline'

/** One thing that is promised: ours beside its reference, in the same run. */
export interface Measure {
  name: string
  unit: string
  /** What the ratio must be at least or at most. */
  promise: { atMost?: number; atLeast?: number }
  /** The ratio is how many times faster ours is: reference ÷ ours, of times. */
  faster?: boolean
  runs: number
  /** One run of each; the figures in `unit`. More figures go into `notes`. */
  run(): Promise<{ ours: number; reference: number; notes?: Record<string, number> }>
}

export interface Result {
  ours: number
  reference: number
  ratio: number
  unit: string
  kept: boolean
  notes: Record<string, number>
}

/** Runs a measure several times; medians of both sides, and the ratio of the medians. */
export async function measure(of: Measure): Promise<Result> {
  const runs: Awaited<ReturnType<Measure['run']>>[] = []
  for (let i = 0; i < of.runs; i++) {
    runs.push(await of.run())
    const { ours, reference, notes } = runs.at(-1)!
    console.log(
      `  ${of.name} ${i + 1}/${of.runs}: ours ${round(ours)} ${of.unit}, reference ${round(reference)} ${of.unit}${notes ? `, ${JSON.stringify(notes)}` : ''}`,
    )
  }
  const ours = median(runs.map((run) => run.ours))
  const reference = median(runs.map((run) => run.reference))
  const ratio = of.faster ? reference / ours : ours / reference
  const { atMost = Infinity, atLeast = -Infinity } = of.promise
  const names = Object.keys(runs[0]!.notes ?? {})
  const notes = Object.fromEntries(
    names.map((name) => [name, round(Math.max(...runs.map((run) => run.notes![name]!)))]),
  )
  return {
    ours: round(ours),
    reference: round(reference),
    ratio: Math.round(ratio * 1000) / 1000,
    unit: of.unit,
    kept: ratio <= atMost && ratio >= atLeast,
    notes,
  }
}

/** Runs a script of this folder in a process of its own; the JSON object it prints last. */
export async function inProcess<T>(script: string, ...args: string[]): Promise<T> {
  const child = start(script, args)
  let last = ''
  createInterface({ input: child.stdout! }).on('line', (line) => (last = line || last))
  const [code] = (await once(child, 'exit')) as [number]
  if (code !== 0) throw new Error(`${script} ended with ${code}.`)
  return JSON.parse(last) as T
}

/** Starts a script that serves, and waits for its first line; `stop` ends it. */
export async function serving(
  script: string,
  ...args: string[]
): Promise<{ line: string; stop(): Promise<void> }> {
  const child = start(script, args)
  const [line] = (await once(createInterface({ input: child.stdout! }), 'line')) as [string]
  return {
    line,
    async stop() {
      child.kill('SIGKILL')
      if (child.exitCode === null && child.signalCode === null) await once(child, 'exit')
    },
  }
}

function start(script: string, args: string[]): ChildProcess {
  const path = new URL(`${script}.mjs`, import.meta.url).pathname
  return spawn(process.execPath, [path, ...args], { stdio: ['ignore', 'pipe', 'inherit'] })
}

/** The middle of some figures. */
export function median(values: number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  const middle = sorted.length >> 1
  return sorted.length % 2 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2
}

function round(value: number): number {
  return value >= 100 ? Math.round(value) : Math.round(value * 100) / 100
}
