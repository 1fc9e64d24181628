import {
  consentsOf,
  doubtOf,
  doubts,
  joinedBy,
  MOST_KEPT,
  readEntered,
  type Entered,
  type FormFault,
  type Posted,
  type SignUpForm,
} from '../../core/sign-ups'
import type { ReaderLanguage } from '../../core/readers'
import { DAY } from '../../core/time'
import { transact, type Database } from '../../database'
import { isSuppressed, personByAddress, readFields, subscriptionState } from '../../database/people'
import {
  addSending,
  isWorkUsed,
  lastMailTo,
  mailAgain,
  sameSending,
  sendingById,
  sendingsBefore,
} from '../../database/sign-ups'
import { confirmSending } from './confirm'

/** A form as somebody had it before them when they sent it in. */
export interface SeenForm {
  signUpId: number
  version: number
  form: SignUpForm
  language: ReaderLanguage
}

/** How it was sent in. */
export interface Circumstances {
  /** The field that nobody sees was filled. */
  trapped: boolean
  /** For how long it had been drawn for them, ms, as its own token says; null where that is none of ours. */
  drawnFor: number | null
  /** It came from a page whose site is proven; else its address is always to be confirmed. */
  proven: boolean
  /** The work that their browser did for it, by its name; null: none that holds. */
  work: string | null
  /** They were asked about their address, and it is right. */
  sure: boolean
  page: string | null
  ip: string | null
  agent: string | null
}

/**
 * What the sender is shown. `waits`: to look into their mailbox; the same for somebody new, somebody on file, and who is
 * kept away, so that nobody finds out who is subscribed.
 */
export type Taken =
  | { kind: 'wrong'; faults: Record<string, FormFault>; meant: string | null }
  | { kind: 'waits' }
  | { kind: 'confirmed' }
  /** So many came from this network that nothing is kept of it. */
  | { kind: 'too-many' }

/** Takes what was sent in by a form. `domains`: those that many write to, for slips of the hand. */
export function takeSending(
  db: Database,
  seen: SeenForm,
  posted: Posted,
  of: Circumstances,
  domains: ReadonlySet<string>,
  now: number,
): Taken {
  const { form } = seen
  const fields = new Map(readFields(db).map((field) => [field.key, field]))
  const read = readEntered(form, posted, { fields, domains }, of.sure)
  if (!read.ok)
    return { kind: 'wrong', faults: read.faults, meant: 'meant' in read ? read.meant : null }
  const { entered } = read
  return transact(db, () => keep(db, seen, entered, of, now))
}

function keep(
  db: Database,
  seen: SeenForm,
  entered: Entered,
  of: Circumstances,
  now: number,
): Taken {
  const { signUpId, version, form, language } = seen
  const { normal } = entered.address
  // Handed in once more, as its answer was lost on the way.
  if (of.work?.startsWith('desk ') && isWorkUsed(db, of.work)) return { kind: 'waits' }
  const same = sameSending(db, { signUpId, version, entered })
  if (same && !of.trapped) {
    mailAgain(db, same, now)
    return { kind: 'waits' }
  }
  const before = sendingsBefore(db, { normal, ip: of.ip, signUpId }, now)
  if (before.all >= MOST_KEPT) return { kind: 'too-many' }
  const person = personByAddress(db, normal)
  // What was handed in once is no work any more.
  const work = of.work !== null && !isWorkUsed(db, of.work) ? of.work : null
  const doubt = doubtOf({
    trapped: of.trapped,
    drawnFor: of.drawnFor,
    worked: work !== null,
    suppressed: person !== undefined && isSuppressed(db, person),
    before,
  })
  const sending = { ...{ signUpId, version, language, entered, doubt, work }, ...fromWhere(of) }
  if (doubt) {
    addSending(
      db,
      { ...sending, state: doubts[doubt].look ? 'for-a-look' : 'kept-away', mail: null },
      now,
    )
    return { kind: 'waits' }
  }
  if (person !== undefined && hasAlready(db, person, form, entered, language)) {
    const told = lastMailTo(db, normal, 'already')
    const mail = told !== null && told > now - DAY ? null : ('already' as const)
    addSending(db, { ...sending, state: 'already', mail }, now)
    return { kind: 'waits' }
  }
  // Nobody on file is changed without their own press behind a mailed link, whatever the form says.
  const confirms = form.doubleOptIn || !of.proven || person !== undefined
  const mail = confirms ? ('confirm' as const) : null
  const id = addSending(db, { ...sending, state: 'pending', mail }, now)
  if (confirms) return { kind: 'waits' }
  confirmSending(db, sendingById(db, id)!, fromWhere(of), now)
  return { kind: 'confirmed' }
}

const fromWhere = ({ page, ip, agent }: Circumstances) => ({ page, ip, agent })

/** Whether somebody on file has everything that they ask for: every list, and nothing else is promised or entered. */
function hasAlready(
  db: Database,
  person: number,
  form: SignUpForm,
  { ticked }: Entered,
  language: ReaderLanguage,
): boolean {
  const consents = consentsOf(form, ticked, language)
  return (
    consents.length > 0 &&
    consents.every(({ oneMail }) => !oneMail) &&
    joinedBy(consents).every(({ listId }) => subscriptionState(db, person, listId) === 'subscribed')
  )
}
