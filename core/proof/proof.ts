import { alternativeText } from './checks/alternative-text'
import { approval } from './checks/approval'
import { audience } from './checks/audience'
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
import { weight } from './checks/weight'
import { wording } from './checks/wording'
import type { Mark, MarkLevel, ProofFacts } from './mark'

const checks = [
  audience,
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
  linkWords,
  alternativeText,
  contrasts,
  picturesAndWords,
  weight,
]
const order: MarkLevel[] = ['blocker', 'caution', 'note']

/** All marks of a letter, the gravest first, in the order of the checks. */
export function proofOf(facts: ProofFacts): Mark[] {
  const marks = checks.flatMap((check) => check(facts))
  return order.flatMap((level) => marks.filter((mark) => mark.level === level))
}

export function blockersOf(marks: readonly Mark[]): Mark[] {
  return marks.filter((mark) => mark.level === 'blocker')
}
