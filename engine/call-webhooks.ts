import { nextTry, signedHeaders } from '../core/sign-ups/webhook'
import { callById, callsDue, callTried, hookKey } from '../database/sign-ups'
import { postWeb } from './ask-web'
import type { Engine, Work } from './engine'
import { severalAtOnce } from './several-at-once'

/** Tells programs of who has confirmed a sign-up. */
export const webhookCaller = (): Work =>
  severalAtOnce(
    4,
    ({ db, clock }, many) => callsDue(db, clock(), many).map(String),
    (engine, id) => callOne(engine, Number(id)),
  )

/**
 * One call, signed. What is not taken (any answer but 2xx, or none) is tried again for a day; each try has a time of its
 * own, so that a call that was listened in on is of no use later.
 */
async function callOne({ db, clock, hostClock, settings }: Engine, id: number) {
  const call = callById(db, id)
  if (!call) return
  const headers = signedHeaders(hookKey(db, call.sign_up_id), call.body, hostClock())
  const answer = await postWeb(call.url, call.body, headers, settings)
  const taken = 'status' in answer && answer.status >= 200 && answer.status < 300
  const said = 'status' in answer ? `answered ${answer.status}` : answer.problem
  const due = taken ? null : nextTry(call.tries + 1, call.at, clock())
  callTried(db, call, { taken, answer: said, due }, clock())
}
