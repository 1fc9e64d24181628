import { answerQuestions } from '../../cases/apart'
import { openDatabase, type Database } from '../../database'
import { questions, type Question } from './questions'

/**
 * The asker: a process that the web process starts to ask long questions of the database, so that no
 * page and no open waits for them. It only reads, and may be killed in the middle of a question.
 */
const db = openDatabase(process.env.SATCHEL_DATA!, { reading: true })
answerQuestions(({ ask, of }: Question) => {
  const answer = questions[ask] as (db: Database, of: unknown) => unknown
  return answer(db, of)
})
