import { compileLetter, packLetter, type LetterFrame } from '../../core/letters/rendering'
import type { Letter } from '../../core/letters'
import { answerQuestions } from '../apart/answerer'

/** The process in which letters are compiled, so that none, whatever it holds, holds up or ends what has to go on. */
answerQuestions(async ({ letter, frame }: { letter: Letter; frame: LetterFrame }) =>
  packLetter(await compileLetter(letter, frame)),
)
