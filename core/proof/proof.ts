import { alternativeText } from './checks/alternative-text'
import { approval } from './checks/approval'
import { audience } from './checks/audience'
import { authentication } from './checks/authentication'
import { contrasts } from './checks/contrast'
import { dates } from './checks/dates'
import { feeds } from './checks/feeds'
import { fillerText } from './checks/filler-text'
import { gaps } from './checks/gaps'
import { linkWords } from './checks/link-words'
import { links } from './checks/links'
import { picks } from './checks/picks'
import { picturesAndWords } from './checks/pictures-and-words'
import { postalAddress } from './checks/postal-address'
import { renditions } from './checks/renditions'
import { subject } from './checks/subject'
import { filters } from './checks/filters'
import { otherMail } from './checks/other-mail'
import { promise } from './checks/promise'
import { sender } from './checks/sender'
import { spelling } from './checks/spelling'
import { trial } from './checks/trial'
import { weight } from './checks/weight'
import { wording } from './checks/wording'
import { isSame, type Letter } from '../letters'
import type { Mark, MarkLevel, ProofFacts } from './mark'
import { repaired } from './repair'

const checks = [
  audience,
  otherMail,
  subject,
  links,
  gaps,
  renditions,
  postalAddress,
  fillerText,
  picks,
  feeds,
  approval,
  dates,
  wording,
  spelling,
  linkWords,
  promise,
  filters,
  authentication,
  trial,
  sender,
  alternativeText,
  contrasts,
  picturesAndWords,
  weight,
]
const order: MarkLevel[] = ['blocker', 'caution', 'note']

/** All marks of a letter, the gravest first, in the order of the checks. */
export function proofOf(facts: ProofFacts): Mark[] {
  const marks = checks
    .flatMap((check) => check(facts))
    .map((mark) => (mark.repairs ? { ...mark, repairs: working(facts.letter, mark) } : mark))
  return order.flatMap((level) => marks.filter((mark) => mark.level === level))
}

/** Repairs that change something: words may be parted by a link or a fill-in where a check sees them whole. */
function working(letter: Letter, mark: Mark) {
  return mark.repairs!.filter(
    ({ change }) =>
      change.is === 'own-word' ||
      !isSame(
        repaired(letter, mark, change, () => 'new'),
        letter,
      ),
  )
}

export function blockersOf(marks: readonly Mark[]): Mark[] {
  return marks.filter((mark) => mark.level === 'blocker')
}
