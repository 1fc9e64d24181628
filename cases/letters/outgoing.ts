import type { Letter } from '../../core/letters'
import type { CompiledLetter, LetterFrame } from '../../core/letters/rendering'
import type { Database } from '../../database'
import { wholeLetterOf } from '../../database/letters'
import type { Mailing } from '../../database/mailings'
import { compiledOf, contentOf } from '../../database/sending'
import { compileApart } from '../apart'
import { footerOf } from './footer'
import { frameOf } from './frame'

/** A mailing's letter with what it is rendered with. */
export interface Outgoing {
  letter: Letter
  frame: LetterFrame
  /** Rejects where the letter can't be made. */
  compiled: () => Promise<CompiledLetter>
}

/** A mailing's letter as it went out, whatever was changed since; where it has not begun, as it stands now. */
export function outgoingOf(db: Database, mailing: Mailing, url: string, variant = 0): Outgoing {
  const content = mailing.started_at === null ? null : contentOf(db, mailing.id, variant)
  if (content) {
    const { letter, letterhead, postalAddress, senderName, list } = content
    const footer = footerOf(content)
    return {
      letter,
      frame: {
        letterhead,
        postalAddress,
        senderName,
        listName: list.name,
        footer,
        url: content.url,
      },
      compiled: () => Promise.resolve(compiledOf(content)),
    }
  }
  const letter = wholeLetterOf(db, mailing.letter_id)
  const frame = frameOf(db, mailing, url)
  return { letter, frame, compiled: () => compileApart(letter, frame) }
}
