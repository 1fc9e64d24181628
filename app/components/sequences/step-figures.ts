import { totalOf } from '~~/core/counting'
import type { Band, Rehearsal } from '~~/core/rehearsal'
import { BACK, mailingsOfStep, type MailStep, type Step } from '~~/core/sequences'
import type { OpenSequence } from '~/stores/sequence'
import { backWords, clock, happeningWords, hoursWords } from './words'
import { waitWords } from './waits'

/** What stands under a step's words, and beside it: figures of what came of it. */
export function stepFigures(
  id: string,
  step: Step,
  of: OpenSequence,
): { about: string; count: string } {
  const passed = (way?: number) => {
    const ways = of.traffic[id] ?? []
    return way === undefined ? ways.reduce((sum, n) => sum + n, 0) : (ways[way] ?? 0)
  }
  switch (step.kind) {
    case 'mail': {
      const { delivered, opened, clicked } = mailFigures(step, of)
      return {
        about: delivered
          ? `${percent(opened / delivered)} opened · ${percent(clicked / delivered)} clicked`
          : 'not sent yet',
        count: `${count(delivered)} sent`,
      }
    }
    case 'wait':
      return {
        about: [
          step.until?.is === 'happens' && `at most ${waitWords(step.ms)}`,
          step.until &&
            step.until.is !== 'happens' &&
            !step.best &&
            `at ${clock(step.until.hour * 60)}`,
          step.best && 'at their best hour',
          step.hours && hoursWords(step.hours),
          step.clock !== undefined && 'their clock',
          step.back &&
            `then ${backWords(step.back, of)}, at most ${several(step.back.times, 'time', 'times')}`,
          passed(BACK) > 0 && step.back && `${count(passed(BACK))} times so far`,
        ]
          .filter(Boolean)
          .join(', '),
        count: `${count(of.standing[id] ?? 0)} here`,
      }
    case 'goal':
      return {
        about: `${happeningWords(step.when, of)}; ${step.out ? 'who does is out' : step.ways ? 'who does goes a way of their own' : 'who does goes on from here'}`,
        count: `${count(passed(1))} reached`,
      }
    default:
      return { about: '', count: `${count(passed())} came by` }
  }
}

/** The same of a rehearsal: the middle of its draws, and under the words what nine in ten lie between. */
export function rehearsedFigures(
  id: string,
  step: Step,
  of: OpenSequence,
  rehearsal: Rehearsal,
): { about: string; count: string } {
  const ways = rehearsal.traffic[id] ?? []
  const some = (band: Band | undefined) => count(band?.middle ?? 0)
  const share = (band: Band | undefined) =>
    percent((band?.middle ?? 0) / Math.max(1, ways[0]?.middle ?? 0))
  switch (step.kind) {
    case 'mail':
      return {
        count: `${some(ways[0])} get it`,
        about: ways[0]
          ? `${share(rehearsal.opened[id])} open · ${share(rehearsal.clicked[id])} click`
          : '',
      }
    case 'wait': {
      const { about } = stepFigures(id, step, of)
      const here = rehearsal.standing[id]
      return { about, count: here ? `${some(here)} still here` : `${someOf(ways)} came by` }
    }
    case 'goal':
      return {
        about: between(ways[1]),
        count: `${some(ways[1])} reach it`,
      }
    default:
      return { about: '', count: `${someOf(ways)} came by` }
  }
}

const someOf = (ways: readonly Band[]) => count(ways.reduce((sum, { middle }) => sum + middle, 0))

/** "1,821 to 1,855": what nine draws in ten lie between. */
export const between = (band: Band | undefined, words: (n: number) => string = count): string =>
  !band || words(band.low) === words(band.high) ? '' : `${words(band.low)} to ${words(band.high)}`

/** What came of a step's mail, whichever version of it people got. */
export function mailFigures(step: MailStep, { mailings }: Pick<OpenSequence, 'mailings'>) {
  const ids = mailingsOfStep(step)
  const mails = mailings.filter(({ id }) => ids.includes(id))
  const sum = (of: (mail: (typeof mails)[number]) => number) =>
    mails.reduce((all, mail) => all + of(mail), 0)
  return {
    delivered: sum((mail) => totalOf(mail, 'delivered')),
    opened: sum(({ opened }) => opened ?? 0),
    clicked: sum(({ clicked }) => clicked ?? 0),
  }
}
