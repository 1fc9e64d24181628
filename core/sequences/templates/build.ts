import { block, button, heading, letterOf, text } from '../../letters/templates/build'
import type { Block, Letter } from '../../letters'
import { DAY } from '../../time'
import type { Happening } from '../happening'
import { emptyMap, insertStep, joinAt, stepsInOrder, type SequenceMap, type Spot } from '../map'
import type { Again, Starting } from '../starts'
import type { NewStep } from '../steps'
import type { Act } from '../steps/do'
import type { OpenHours, Until } from '../steps/wait'

/** A sequence to begin from: an ordinary map, whose mails have letters written. */
export interface SequenceTemplate {
  key: string
  name: string
  about: string
  by: Starting[]
  again: Again
  /** From Start on, along the main way. */
  line: Part[]
}

/**
 * A mail with its letter, or a step. A step with a side way says what stands on that, and whether it ends there instead of
 * coming together with the main way.
 */
export type Part = { letter: Letter } | { step: NewStep; side?: Part[]; ends?: boolean }

/** A mail. What stands in square brackets is to be replaced; the proof finds what is left. */
export function mail(
  subject: string,
  preview: string,
  title: string,
  lines: string[],
  press: string,
  between: Block[] = [],
): Part {
  const greeting = 'Hello {first name},'
  const parts = [heading(title), text(greeting, ...lines), ...between, button(press)]
  return { letter: letterOf(subject, preview, parts) }
}

/** The products of the event by which they came in. */
export const whatItBeganWith = (many: number): Block => block('picks', { by: 'began', many })

export const wait = (days: number, hours?: OpenHours): Part => ({
  step: { kind: 'wait', ms: days * DAY, ...(hours && { hours }) },
})

/** Waits for something, so many days at most; `late` stands on the way of who was not in time. */
export const waitFor = (what: Happening, days: number, late: Part[], ends = false): Part => ({
  step: {
    ...{ kind: 'wait', ms: days * DAY, ways: [{ next: null }] },
    until: { is: 'happens', what },
  },
  side: late,
  ends,
})

export const waitUntil = (until: Until): Part => ({ step: { kind: 'wait', ms: DAY, until } })

/** A fork: `side` stands on the way of those of whom it holds. */
export const fork = (when: Happening, side: Part[]): Part => ({
  step: { kind: 'fork', ways: [{ when, next: null }] },
  side,
})

export const does = (...acts: Act[]): Part => ({ step: { kind: 'do', acts } })

export const goal = (name: string, when: Happening): Part => ({
  step: { kind: 'goal', name, when, out: true },
})

/** Every morning between 8 and 10. */
export const mornings: OpenHours = { days: [0, 1, 2, 3, 4, 5, 6], from: 8 * 60, to: 10 * 60 }

/** The map of a template; `mailing` makes the mailing of a letter and says its number. */
export function mapOfTemplate(
  { by, again, line }: SequenceTemplate,
  mailing: (letter: Letter) => number,
): SequenceMap {
  const start = { ...emptyMap.start, by, again }
  return putIn({ ...emptyMap, start }, { step: null, way: 0 }, line, mailing)
}

/** Puts parts in on a way, one behind the other. */
function putIn(
  map: SequenceMap,
  at: Spot,
  parts: Part[],
  mailing: (letter: Letter) => number,
): SequenceMap {
  let drawn = map
  let spot = at
  for (const part of parts) {
    const id = `step-${stepsInOrder(drawn).length + 1}`
    const step: NewStep =
      'letter' in part ? { kind: 'mail', mailingId: mailing(part.letter) } : part.step
    drawn = insertStep(drawn, spot, id, step)
    spot = { step: id, way: 0 }
    if (!('side' in part) || !part.side?.length) continue
    // What stands on the side way comes together with what is put in behind, so that comes first.
    const rest = parts.slice(parts.indexOf(part) + 1)
    const onward = drawn.steps[id]!.next
    drawn = putIn(drawn, spot, rest, mailing)
    const joins = drawn.steps[id]!.next
    drawn = putIn(drawn, { step: id, way: 1 }, part.side, mailing)
    return part.ends || joins === onward ? drawn : joinAt(drawn, id, 1, joins)
  }
  return drawn
}
