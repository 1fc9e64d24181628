import { compileApart } from '~~/cases/apart'
import type { Letter } from '~~/core/letters'
import type { CompiledLetter, LetterFrame } from '~~/core/letters/rendering'
import { compiledOf, contentOf } from '~~/database/sending'
import { wholeLetterOf } from '~~/database/letters'
import type { Mailing } from '~~/database/mailings'

/** A mailing's letter with what it is rendered with. */
export interface Outgoing {
  letter: Letter
  frame: LetterFrame
  listName: string
  senderName: string
  compiled: () => Promise<CompiledLetter>
}

/** A mailing's letter as it went out, whatever was changed since; where it has not begun, as it stands now. */
export function outgoingOf(mailing: Mailing, variant = 0): Outgoing {
  const { db } = satchel()
  const content = mailing.started_at === null ? null : contentOf(db, mailing.id, variant)
  if (content) {
    const { letter, letterhead, postalAddress, senderName, list, url } = content
    return {
      letter,
      frame: { letterhead, postalAddress, senderName, listName: list.name, url },
      listName: list.name,
      senderName,
      compiled: () => Promise.resolve(compiledOf(content)),
    }
  }
  const letter = wholeLetterOf(db, mailing.letter_id)
  const frame = letterFrame(mailing)
  return {
    letter,
    frame,
    listName: frame.listName,
    senderName: frame.senderName,
    compiled: () =>
      compileApart(letter, frame).catch((error: Error) => {
        throw refused(`The letter can’t be made: ${error.message}`)
      }),
  }
}
