import { letterOf } from '~~/database/letters'
import { mailingById } from '~~/database/mailings'
import { addMailOf } from '~~/database/sequences'
import { sequenceMailInput } from '~~/shared/mailing-inputs'

/** A mail for a new step, with a letter to begin with: a fresh one, or that of another sequence's mail. */
export default defineEventHandler(async (event) => {
  const { name, copyOf } = await readInput(event, sequenceMailInput)
  const { db, clock } = satchel()
  const copied = copyOf === undefined ? undefined : mailingById(db, copyOf)
  if (copyOf !== undefined && copied?.sequence_id == null)
    throw notFound('The mail that was copied is gone.')
  const letter = copied && letterOf(db, copied.letter_id)
  return { id: addMailOf(db, sequenceOf(event), name, clock(), letter) }
})
