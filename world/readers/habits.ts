import { chanceOf } from '../chance'

/** How one reader reads. Made from the address alone, so it is always the same. */
export interface Habits {
  /** Share of letters they open when not tired of them. */
  opens: number
  /** Share of opened letters in which they follow a link. */
  clicks: number
  /** Share of opened letters after which they leave. */
  leaves: number
  /** How much more than others they complain, and answer; 1 is as others do. */
  complains: number
  replies: number
  picturesOff: boolean
  /** Hour of the day at which they like to read. */
  hour: number
  agent: string
}

/** What people read on, and how many of a hundred: phones most, tablets least. */
const agents: [agent: string, of100: number][] = [
  ['PocketPost/7.3 (phone)', 52],
  ['Mozilla/5.0 (Windows NT 10.0; Win64; x64) Quillreader/12.0', 22],
  ['Mozilla/5.0 (Macintosh; Intel Mac OS X 14_2) Quillreader/12.0', 13],
  ['SailMail/4.1 (X11; Linux x86_64)', 6],
  ['PocketPost/7.3 (tablet)', 7],
]

/** On what somebody reads; `where` tells apart what they have besides. */
export function agentOf(address: string, where = ''): string {
  let place = chanceOf(`agent${where}`, address) * 100
  return agents.find(([, many]) => (place -= many) < 0)![0]
}

export function habitsOf(address: string): Habits {
  const chance = (what: string) => chanceOf(what, address)
  const keen = chance('keen') ** 1.4
  return {
    opens: 0.08 + 0.8 * keen,
    clicks: 0.03 + 0.28 * chance('clicks') * keen,
    leaves: 0.004 * (1 - keen) + 0.001,
    complains: 1.75 * (1 - keen),
    replies: 0.4 + 1.45 * keen,
    picturesOff: chance('pictures') < 0.1,
    hour: [7, 8, 12, 13, 18, 20, 21, 22][Math.floor(chance('hour') * 8)]!,
    agent: agentOf(address),
  }
}

const MINUTE = 60_000
const HOUR = 60 * MINUTE

/** When somebody looks at a letter that came at `at`: soon, or at their hour today or in the next days. */
export function readingTime(habits: Habits, at: number, chance: () => number): number {
  if (chance() < 0.45) return at + MINUTE + -Math.log(1 - chance()) * 50 * MINUTE
  const midnight = Math.floor(at / (24 * HOUR)) * 24 * HOUR
  let time = midnight + habits.hour * HOUR + (chance() - 0.5) * 2 * HOUR
  while (time < at + MINUTE) time += 24 * HOUR
  while (chance() < 0.15) time += 24 * HOUR
  return time
}
