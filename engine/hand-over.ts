import { nextTry, signedHeaders } from '../core/sign-ups/webhook'
import { transact } from '../database'
import {
  handOverById,
  handOverKey,
  handOversDue,
  handOverTried,
  keyOf,
  wakePerson,
} from '../database/sequences'
import { postWeb } from './ask-web'
import type { Engine, Work } from './engine'
import { severalAtOnce } from './several-at-once'

/** The most that is read of an answer, bytes. */
const MOST_READ = 4_096

/** Hands people over to other programs, as steps of sequences ask. */
export const handingOver = (): Work =>
  severalAtOnce(
    4,
    ({ db, clock }, many) => handOversDue(db, clock(), many).map(String),
    (engine, id) => handOver(engine, Number(id)),
  )

/**
 * One hand-over, signed, with a key by which the other program knows it again. 2xx: taken; 4xx: refused, for good. Any other
 * answer, or none, is tried again for a day. Who waits for the answer goes on.
 */
async function handOver({ db, clock, hostClock, settings }: Engine, id: number) {
  const of = handOverById(db, id)
  if (!of) return
  const key = keyOf({ ...of, sequenceId: of.sequence_id, person: of.person_id })
  const headers = {
    ...signedHeaders(handOverKey(db, of.sequence_id), of.body, hostClock()),
    'Idempotency-Key': key,
  }
  const answer = await postWeb(of.url, of.body, headers, settings, MOST_READ)
  const status = 'status' in answer ? answer.status : null
  const known = status === null || status < 200 || status >= 500 ? null : status < 300
  const due = known === null ? nextTry(of.tries + 1, of.at, clock()) : null
  const taken = known === null && due === null ? false : known
  const said = 'status' in answer ? `answered ${answer.status}` : answer.problem
  transact(db, () => {
    const heard = 'text' in answer ? objectIn(answer.text) : {}
    handOverTried(db, of, { taken, said, answer: heard, due }, clock())
    if (taken !== null) wakePerson(db, of.person_id, clock())
  })
}

/** The JSON object that an answer is; an empty one where it is none. */
function objectIn(text: string): object {
  try {
    const read: unknown = JSON.parse(text)
    return typeof read === 'object' && read !== null && !Array.isArray(read) ? read : {}
  } catch {
    return {}
  }
}
