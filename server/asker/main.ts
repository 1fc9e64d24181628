import { openDatabase, type Database } from '../../database'
import { questions, type Question } from './questions'

/**
 * The asker: a process that the web process starts to ask long questions of the database, so that no
 * page and no open waits for them. It only reads, and may be killed in the middle of a question.
 */
const db = openDatabase(process.env.SATCHEL_DATA!, { reading: true })
process.on('message', ({ id, question }: { id: number; question: Question }) => {
  try {
    const answer = questions[question.ask] as (db: Database, of: unknown) => unknown
    process.send!({ id, answer: answer(db, question.of) })
  } catch (error) {
    process.send!({ id, problem: error instanceof Error ? error.message : String(error) })
  }
})
process.on('disconnect', () => process.exit())
