import { createHmac } from 'node:crypto'
import { createChallenge, verifySolution } from 'altcha-lib/v1'
import { DAY } from '~~/core/time'

/** Hashes that are tried at most: half a second of a usual browser, begun while one still types. */
const MOST_TRIED = 12_000

/** A key of its own, made of the account's. */
const workKey = () => createHmac('sha256', publicKey()).update('sign-up work').digest('hex')

/** A little work for a browser, for one form. */
export const newWork = (signUpId: number) =>
  createChallenge({
    ...{ hmacKey: workKey(), maxNumber: MOST_TRIED, params: { form: String(signUpId) } },
    expires: new Date(satchel().hostClock() + DAY),
  })

/** The name of the work that was handed in for a form; null where that is none that holds. */
export async function workDone(signUpId: number, handedIn: string): Promise<string | null> {
  if (!handedIn || handedIn.length > 1_000) return null
  try {
    const payload = JSON.parse(atob(handedIn)) as { challenge: string; salt: string }
    const of = new URLSearchParams(payload.salt.split('?')[1])
    const isRight =
      of.get('form') === String(signUpId) && (await verifySolution(handedIn, workKey()))
    return isRight ? payload.challenge : null
  } catch {
    return null
  }
}
