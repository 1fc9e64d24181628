import { nameOf } from '../core/people'
import { pourMessage, type PouredMessage } from '../core/delivery'
import { truthOf } from '../core/letters'
import { fillFor, personContext, shownFor, type PickedProduct } from '../core/letters/rendering'
import type { Candidate } from '../database/sending'
import { roundKey, valuesOf } from '../database/people'
import { truthsOf } from '../database/mailings'
import type { Engine } from './engine'
import type { GoingLetter, GoingMailing } from './going-mailing'

/** A message for one person, and which of the letter's rules held for them. */
export interface Made {
  recipient: Candidate
  message: PouredMessage
  truth: number | null
}

const nothing = {}

/** The messages for some of a mailing's people. Throws where one can't be made. */
export function makeMessages(
  engine: Engine,
  of: GoingMailing,
  recipients: readonly Candidate[],
): Made[] {
  return of.letters.flatMap((letter, variant) => {
    const theirs = recipients.filter((one) => (one.variant ?? 0) === variant)
    return theirs.length ? messagesOf(engine, of, letter, theirs) : []
  })
}

function messagesOf(
  { db, clock, notes }: Engine,
  of: GoingMailing,
  letter: GoingLetter,
  recipients: readonly Candidate[],
): Made[] {
  const { compiled, picker, valuesFor, footerFor, listName: list, senderName: sender } = letter
  const ids = recipients.map(({ person_id }) => person_id)
  const now = clock()
  const truths = compiled.rules.length ? truthsOf(db, ids, compiled.rules, now) : null
  const picked = picker?.pickFor(recipients)
  const did = valuesFor?.(recipients)
  return recipients.map((recipient) => {
    const id = recipient.person_id
    notes.begin({ mailing: of.mailing.id, what: String(id) })
    const truth = truths ? (truths.get(id) ?? 0) : null
    const values = valuesOf(recipient)
    const context = personContext(
      { address: recipient.address, values },
      { list, sender, mailing: of.mailing.name },
      (picked?.get(roundKey(recipient)) ?? nothing) as Record<string, PickedProduct>,
      { ...(did?.get(roundKey(recipient)) ?? nothing), ...footerFor?.(values) },
    )
    const name = nameOf(recipient)
    const message = pourMessage(
      letter.mould,
      { personId: id, round: recipient.round, address: recipient.normal, name },
      fillFor(compiled, context),
      now,
      shownFor(compiled, truthOf(truth ?? 0, compiled.rules.length)),
    )
    return { recipient, message, truth }
  })
}
