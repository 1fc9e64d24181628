import {
  changeStep,
  freshStarts,
  insertStep,
  joinAt,
  type MailStep,
  type SequenceMap,
  type Start,
} from '../core/sequences'
import { DAY, HOUR } from '../core/time'
import type { Words } from './letters'
import type { DemoLists } from './people'

/** A sequence of the demo account, as one would have drawn it. */
export type Plan = {
  name: string
  list: number
  since: number
  state: 'running' | 'paused' | 'draft'
  by: Start['by']
  again?: Start['again']
  /** Waits in milliseconds between letters. */
  steps: (number | Words)[]
  /** Of those who click in its mail, so many order soon after. */
  buys?: number
  /** The share of those who get nothing, in tenths of a percent; so many of them order all the same. */
  heldOut?: number
  buysAnyway?: number
  /** Where its line forks, once it is drawn; `mail` makes a mailing for one more letter. */
  shape?: (map: SequenceMap, mail: (words: Words) => number) => SequenceMap
}

/** What they name: lists, and the segment of those who do not read any more. */
export type Named = DemoLists & { quiet: number }

export function plansFor(lists: Named, now: number): Plan[] {
  return [
    {
      name: 'First breeze',
      list: lists.windNotes,
      since: now - 320 * DAY,
      state: 'running',
      by: [freshStarts.joined],
      steps: [
        {
          subject: 'Hello from the workshop in Sandreach',
          preview: 'What comes on Fridays, and where to begin',
          title: 'Good to have you here',
          greeting: true,
          lines: [
            'Every Friday we write what the wind will do on twelve beaches, and one thing worth trying in it.',
            'Until the first one comes, here is where most people begin.',
          ],
          button: { label: 'See the workshop and the kites', path: '/new-kites' },
        },
        2 * DAY,
        {
          subject: 'Line care in five minutes',
          preview: 'Sand, salt and knots, and what they do',
          title: 'Lines like to be clean and dry',
          lines: [
            'Rinse them in fresh water, draw them once through a cloth, and hang them in loose loops. That is all the care they need.',
          ],
          button: { label: 'Read about line care', path: '/line-care' },
        },
        5 * DAY,
        {
          subject: 'Twelve beaches, and which wind each likes',
          preview: 'A map for the glove box',
          title: 'Where to fly',
          lines: [
            'Some beaches are at their best in a westerly, some only at low water. This map has them all.',
          ],
          button: { label: 'Open the map of beaches', path: '/beaches' },
        },
      ],
      // Who clicks is marked and known at the desk on the way; who buys a kite has no need of the rest. The last mail is
      // tried in two versions.
      shape(drawn, mail) {
        const map = changeStep(drawn, 'mail-4', {
          ...(drawn.steps['mail-4'] as MailStep),
          versions: [
            {
              share: 500,
              mailingId: mail({
                subject: 'Which of these twelve beaches is yours?',
                preview: 'A westerly, low water, or a dog to bring',
                title: 'Find your beach',
                lines: [
                  'Tell the map which wind you have and how far you drive, and it shows the beaches that are worth it tomorrow.',
                ],
                button: { label: 'Find my beach', path: '/beaches' },
              }),
            },
          ],
          judged: { by: 'clicked', days: 7, how: 'hand' },
        })
        const way = { when: { is: 'clicked' as const, mail: null }, next: null }
        let shaped = insertStep(map, 'wait-3', 'fork', { kind: 'fork', ways: [way] })
        shaped = insertStep(shaped, { step: 'fork', way: 1 }, 'mark', {
          kind: 'do',
          acts: [
            { is: 'tag', tag: 'wants more' },
            {
              ...{ is: 'hand', url: 'https://desk.galewright.example/in', how: 'both' },
              fields: [
                { as: 'Name', from: 'first_name' },
                { as: 'Town', from: 'town' },
              ],
            },
          ],
        })
        return insertStep(shaped, 'mail-4', 'goal', {
          ...{ kind: 'goal', name: 'a first order', when: { is: 'ordered' }, out: true },
          within: 30,
        })
      },
    },
    {
      name: 'Basket left behind',
      list: lists.offers,
      since: now - 320 * DAY,
      state: 'running',
      buys: 0.6,
      by: [{ is: 'left behind', name: 'basket', unless: null, within: 4 * HOUR }],
      again: { is: 'each' },
      heldOut: 100,
      buysAnyway: 0.06,
      steps: [
        {
          subject: 'Your basket is still here',
          preview: 'We keep it for three days',
          title: 'Your basket waits at the counter',
          greeting: true,
          basket: true,
          lines: [
            'Nothing is lost. If a spar length or a line weight was the question, answer this mail and we will help.',
          ],
          button: { label: 'Go back to your basket', path: '/basket' },
        },
        2 * DAY,
        {
          subject: 'Which kite was it to be?',
          preview: 'Three questions that settle it',
          title: 'Three questions that settle it',
          lines: [
            'How strong is your usual wind, how much room is there, and who flies with you? The rest follows.',
          ],
          button: { label: 'Answer three questions', path: '/which-kite' },
        },
        3 * DAY,
      ],
      // Half get the three questions, half an offer of help; whoever orders is out.
      shape(map, mail) {
        let shaped = insertStep(map, 'wait-1', 'split', {
          kind: 'split',
          ways: [{ share: 500, next: null }],
          judged: { by: 'clicked', days: 7, how: 'self' },
        })
        const help = mail({
          subject: 'Shall we choose it with you?',
          preview: 'Ten minutes on the telephone, with somebody who flies it',
          title: 'Ask somebody who flies it',
          lines: [
            'Tell us when we may ring. We take the kite in question to the beach beforehand, and say what it does there.',
          ],
          button: { label: 'Say when we may ring', path: '/which-kite' },
        })
        shaped = insertStep(shaped, { step: 'split', way: 1 }, 'help', {
          ...{ kind: 'mail', mailingId: help },
        })
        shaped = insertStep(shaped, 'wait-3', 'goal', {
          ...{ kind: 'goal', name: 'bought after all', when: { is: 'ordered' }, out: true },
        })
        return joinAt(shaped, 'split', 1, 'wait-3')
      },
    },
    {
      name: 'First course',
      list: lists.workshop,
      since: now - 240 * DAY,
      state: 'paused',
      by: [freshStarts.joined],
      steps: [
        {
          subject: 'How a day in the workshop goes',
          preview: 'What to bring, and what there is to eat',
          title: 'A day in the workshop',
          lines: [
            'We begin at ten, sew until the light goes, and fly what we made where the light is best.',
          ],
          button: { label: 'See the course days', path: '/workshop' },
        },
      ],
    },
    {
      name: 'Quiet since summer',
      list: lists.windNotes,
      since: now - DAY,
      state: 'draft',
      by: [{ is: 'segment', segmentId: lists.quiet, comes: true }],
      again: { is: 'days', days: 180 },
      steps: [
        {
          subject: 'Shall we go on writing?',
          preview: 'One click either way',
          title: 'Shall we go on writing?',
          lines: ['You have not looked in for a while. If you like, we write less.'],
          button: { label: 'Choose how often we write', path: '/how-often' },
        },
        14 * DAY,
      ],
    },
  ]
}
