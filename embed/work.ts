import { solveChallenge } from 'altcha-lib/v1'

/** What the server sets; see `altcha-lib`. */
interface Challenge {
  algorithm: string
  challenge: string
  maxnumber: number
  salt: string
  signature: string
}

/** Does the little work that a form's server asks for, and gives what is handed in with it; empty where that can't be done. */
export async function doWork(address: string): Promise<string> {
  try {
    const answer = await fetch(`${address}/work`, { credentials: 'omit' })
    const { maxnumber, ...set } = (await answer.json()) as Challenge
    const { promise } = solveChallenge(set.challenge, set.salt, set.algorithm, maxnumber)
    const solved = await promise
    return solved ? btoa(JSON.stringify({ ...set, number: solved.number })) : ''
  } catch {
    // A page that is not encrypted has no hashes; what is sent in counts without.
    return ''
  }
}
