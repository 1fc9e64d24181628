import type { Day } from '~~/core/time'

/** A way of coming again that can be chosen, counted from a day. */
interface Repeat {
  /** RFC 5545, section 3.3.10. */
  rule: string
  words: string
}

const weekdays = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday']
const nth = ['first', 'second', 'third', 'fourth', 'fifth']
const months = [
  ...['January', 'February', 'March', 'April', 'May', 'June', 'July'],
  ...['August', 'September', 'October', 'November', 'December'],
]

/** The usual ways of coming again from a day on, always in the same order. */
export function repeatsFrom(from: Day): Repeat[] {
  const [, month, day] = from.split('-').map(Number) as [number, number, number]
  const weekday = new Date(`${from}T00:00:00Z`).getUTCDay()
  const short = weekdays[weekday]!.slice(0, 2).toUpperCase()
  const week = Math.ceil(day / 7)
  return [
    { rule: 'FREQ=DAILY', words: 'every day' },
    { rule: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR', words: 'Monday to Friday' },
    { rule: `FREQ=WEEKLY;BYDAY=${short}`, words: `every ${weekdays[weekday]}` },
    { rule: `FREQ=MONTHLY;BYMONTHDAY=${day}`, words: `on day ${day} of each month` },
    {
      rule: `FREQ=MONTHLY;BYDAY=${week}${short}`,
      words: `every ${nth[week - 1]} ${weekdays[weekday]} of the month`,
    },
    {
      rule: `FREQ=MONTHLY;BYDAY=-1${short}`,
      words: `every last ${weekdays[weekday]} of the month`,
    },
    {
      rule: `FREQ=YEARLY;BYMONTH=${month};BYMONTHDAY=${day}`,
      words: `every year on ${day} ${months[month - 1]}`,
    },
  ]
}

/** What a rule says, as far as it is a usual one. */
export const repeatWords = (rule: string, from: Day): string =>
  repeatsFrom(from).find((one) => one.rule === rule)?.words ?? `by the rule ${rule}`

/** The rule that says of another day what it said of the one before: "every Monday" becomes "every Tuesday". */
export function ruleMoved(rule: string | null, before: Day | '', from: Day): string | null {
  if (rule === null || before === '') return rule
  const usual = repeatsFrom(before).findIndex((one) => one.rule === rule)
  return usual === -1 ? rule : repeatsFrom(from)[usual]!.rule
}
