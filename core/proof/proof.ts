import { approval } from './checks/approval'
import { audience } from './checks/audience'
import { fillerText } from './checks/filler-text'
import { gaps } from './checks/gaps'
import { links } from './checks/links'
import { picks } from './checks/picks'
import { postalAddress } from './checks/postal-address'
import { renditions } from './checks/renditions'
import { subject } from './checks/subject'
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
  approval,
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
