import { readInbound } from '../../core/inbound'
import { readFeed, type Letter } from '../../core/letters'
import { readLetterFile } from '../../core/letters/incoming'
import { withStylesInline } from '../../core/letters/incoming/inline-styles'
import { compileLetter, packLetter, type LetterFrame } from '../../core/letters/rendering'

/**
 * What is computed from what came from outside, or from what somebody wrote, and might take long or much memory, whatever
 * limits it has. Each is done in a process of its own: what is asked and what is answered pass as JSON.
 */
export const works = {
  letter: async ({ letter, frame }: { letter: Letter; frame: LetterFrame }) =>
    packLetter(await compileLetter(letter, frame)),
  feed: ({ text, url }: { text: string; url: string }) => readFeed(text, url),
  report: ({ raw }: { raw: string }) => readInbound(raw),
  letterFile: ({ text }: { text: string }) => readLetterFile(text, withStylesInline),
}
