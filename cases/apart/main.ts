import { answerQuestions } from './answerer'
import { works } from './works'

/** A process that does one of the works after the other, so that none, whatever it is given, holds up or ends what has to go on. */
answerQuestions(({ work, of }: { work: keyof typeof works; of: never }) => works[work](of))
