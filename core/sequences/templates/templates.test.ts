import { expect, test } from 'vitest'
import type { Letter } from '../../letters'
import { DAY } from '../../time'
import { advance, enter, goesRound, mapCautions, mapProblems, readMap, type InsideFacts } from '..'
import { mapOfTemplate, sequenceTemplates, type SequenceTemplate } from '.'

function drawn(template: SequenceTemplate) {
  const letters: Letter[] = []
  const map = mapOfTemplate(template, (letter) => letters.push(letter))
  return { letters, map }
}

test('there are twelve, each with a name and a purpose of its own', () => {
  expect(sequenceTemplates).toHaveLength(12)
  for (const what of ['key', 'name', 'about'] as const)
    expect(new Set(sequenceTemplates.map((one) => one[what])).size).toBe(12)
})

test.each(sequenceTemplates.map((one) => [one.name, one] as const))(
  '%s is an ordinary map, with a letter for each of its mails',
  (_, template) => {
    const { letters, map } = drawn(template)
    expect(readMap(JSON.parse(JSON.stringify(map)))).toEqual(map)
    expect(goesRound(map)).toBe(false)
    const mails = Object.values(map.steps).flatMap((step) =>
      step.kind === 'mail' ? [step.mailingId] : [],
    )
    expect(mails.toSorted((a, b) => a - b)).toEqual(letters.map((_, n) => n + 1))
    for (const { document, subject, previewText } of letters) {
      expect(document.rows.length).toBeGreaterThan(3)
      expect(subject && previewText).toBeTruthy()
    }
    // What is to be chosen, and nothing else, keeps it from starting.
    for (const { title } of mapProblems(map, 1)) expect(title).toMatch(/it is not said which\.$/)
    expect(mapCautions(map, '2026-11-12')).toEqual([])
  },
)

/** Walks somebody through who does nothing, or everything there is to do. */
function walk(template: SequenceTemplate, does: boolean) {
  const { map } = drawn(template)
  const facts: InsideFacts = {
    ...{ subscribed: true, suppressed: false, pausedUntil: null, zone: 'UTC' },
    ...{ holds: () => does, lot: () => 0.5, sharesOf: () => null, fieldOf: () => '2026-12-24' },
    bestHour: () => 8,
  }
  const began = Date.UTC(2026, 11, 17, 9)
  let place = enter(map, began, facts)
  let last = began
  const did: string[] = []
  for (let n = 0; place && n < 100; n++) {
    last = place.due
    const { effects, next } = advance(map, place, facts, last)
    did.push(...effects.map(({ is }) => is))
    place = next
  }
  expect(place).toBeNull()
  return { did, days: Math.round((last - began) / DAY) }
}

test('whoever does nothing is let go after four weeks and two letters; whoever answers stays', () => {
  const letGo = sequenceTemplates.find(({ key }) => key === 'let-go')!
  expect(walk(letGo, false)).toEqual({ did: ['mail', 'mail', 'tag', 'leave'], days: 28 })
  expect(walk(letGo, true)).toEqual({ did: ['mail', 'tag'], days: 0 })
})

test('a side way comes together with the main way, but where it ends', () => {
  const welcome = drawn(sequenceTemplates.find(({ key }) => key === 'welcome')!).map
  const fork = Object.values(welcome.steps).find((step) => step.kind === 'fork')!
  expect(welcome.steps[fork.ways[0]!.next!]).toMatchObject({ kind: 'do', next: fork.next })
  expect(fork.next).not.toBeNull()
})

test('the reminders of an event come a week and a day before, and thanks the day after', () => {
  const event = sequenceTemplates.find(({ key }) => key === 'event')!
  expect(walk(event, false)).toMatchObject({ did: ['mail', 'mail', 'mail'], days: 8 })
})

test.each(sequenceTemplates.map((one) => [one.name, one] as const))(
  '%s ends for whoever does nothing, and for whoever does everything',
  (_, template) => {
    for (const does of [false, true]) walk(template, does)
  },
)
