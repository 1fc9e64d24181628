import type { Inbound } from '../../core/inbound'
import type { FeedEntry, Letter } from '../../core/letters'
import type { IncomingLetter } from '../../core/letters/incoming'
import {
  unpackLetter,
  type CompiledLetter,
  type LetterFrame,
  type PackedLetter,
} from '../../core/letters/rendering'
import { answerer } from './answerer'
import { processFile } from './process-file'
import type { works } from './works'

/** A letter takes well under a second, and so does whatever else; what takes so much of the processor is ended, ms. */
const LONGEST = 15_000

/** What a process may hold, MB: many times what the largest thing takes that the limits let in. */
const MEMORY = 512

const entry = () => processFile('apart')
const letters = answerer({
  entry,
  longest: LONGEST,
  memory: MEMORY,
  tooLong: 'It takes too long to make. Make the letter shorter, or leave out its HTML.',
})
/** What comes from elsewhere has a process of its own, so that no letter waits for it. */
const fromOutside = answerer({
  entry,
  longest: LONGEST,
  memory: MEMORY,
  tooLong: 'It takes too long to read.',
})

type Works = typeof works
const ask = <Work extends keyof Works>(
  whom: typeof letters,
  work: Work,
  of: Parameters<Works[Work]>[0],
) => whom.ask({ work, of }) as Promise<Awaited<ReturnType<Works[Work]>>>

/** Makes a letter ready to be merged. Throws where it can't be made, or takes too long for it. */
export async function compileApart(letter: Letter, frame: LetterFrame): Promise<CompiledLetter> {
  return unpackLetter((await ask(letters, 'letter', { letter, frame })) as PackedLetter)
}

/** The entries of a feed, as `readFeed`; throws, in words, where the text is no feed or takes too long to read. */
export const readFeedApart = (text: string, url: string): Promise<FeedEntry[]> =>
  ask(fromOutside, 'feed', { text, url })

/** What a message that came in is, as `readInbound`; throws where it takes too long to read. */
export const readReportApart = (raw: string): Promise<Inbound> =>
  ask(fromOutside, 'report', { raw })

/** The letter in a file, as `readLetterFile`; throws where it takes too long to read. */
export const readLetterFileApart = (text: string): Promise<IncomingLetter | { problem: string }> =>
  ask(fromOutside, 'letterFile', { text })

export const startCompiling = letters.start

export { answerer, answerQuestions, say, Unanswered } from './answerer'
export { processFile } from './process-file'
export { processorTime } from './processor-time'
