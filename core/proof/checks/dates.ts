import type { Mark, ProofFacts } from '../mark'
import { textsOf } from '../texts'

const months =
  'january february march april may june july august september october november december'.split(' ')
const weekdays = 'sunday monday tuesday wednesday thursday friday saturday'.split(' ')
const day = String.raw`(\d{1,2})(?:st|nd|rd|th)?`
const month = `(${months.map((name) => `${name.slice(0, 3)}(?:${name.slice(3)})?`).join('|')})`
/** "Friday 27 November 2026", "Fri, November 27th": the weekday and the year may be left out. */
const written = new RegExp(
  String.raw`\b(?:(${weekdays.map((name) => `${name.slice(0, 3)}(?:${name.slice(3)})?`).join('|')}),?\s+(?:the\s+)?)?(?:${day}\s+(?:of\s+)?${month}|${month}\s+${day})\b(?:,?\s+(\d{4}))?`,
  'gi',
)

/**
 * Dates that lie before the letter goes out, and weekdays that do not fit their date. A date without a year is the
 * one nearest to when the letter goes out.
 */
export function dates({ letter, goesOutOn }: ProofFacts): Mark[] {
  const marks: Mark[] = []
  const today = Date.parse(goesOutOn)
  for (const { blockId, where, text } of textsOf(letter))
    for (const found of text.matchAll(written)) {
      const [words, weekday, before, monthAfter, monthBefore, after, year] = found
      const at = dayOf(Number(before ?? after), (monthAfter ?? monthBefore)!, year, today)
      if (at === null) continue
      const is = weekdays[new Date(at).getUTCDay()]!
      const base = { check: 'dates', level: 'caution' as const, blockId }
      if (weekday && !is.startsWith(weekday.toLowerCase().slice(0, 3)))
        marks.push({
          ...base,
          title: `“${words.trim()}” is a ${capital(is)}`,
          detail: `The weekday in the ${where} does not fit its date.`,
          repairs: [
            {
              words: `Make it ${capital(is)}`,
              change: {
                is: 'text',
                from: words.trim(),
                to: words
                  .trim()
                  .replace(weekday, capital(weekday.length <= 3 ? is.slice(0, 3) : is)),
              },
            },
          ],
        })
      else if (at < today)
        marks.push({
          ...base,
          title: `“${words.trim()}” will be over`,
          detail: `The letter goes out on ${goesOutOn}, after this day.`,
        })
    }
  return marks
}

/** UTC midnight of a day; null where there is no such day. */
function dayOf(n: number, name: string, year: string | undefined, today: number): number | null {
  const at = months.findIndex((one) => one.startsWith(name.toLowerCase().slice(0, 3)))
  const on = (y: number) => Date.UTC(y, at, n)
  const thisYear = new Date(today).getUTCFullYear()
  const exists = (time: number) => new Date(time).getUTCMonth() === at && n > 0
  if (year) return exists(on(Number(year))) ? on(Number(year)) : null
  const near = [thisYear - 1, thisYear, thisYear + 1]
    .map(on)
    .filter(exists)
    .sort((a, b) => Math.abs(a - today) - Math.abs(b - today))
  return near[0] ?? null
}

const capital = (word: string) => word.charAt(0).toUpperCase() + word.slice(1)
