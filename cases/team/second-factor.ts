import { randomBytes } from 'node:crypto'
import { plainRecoveryCode, recoveryCodes, totpSecret, totpStep } from '../../core/sign-in'
import { transact, type Database } from '../../database'
import { secondFactorOf, setSecondFactor, useRecoveryCode, useStep } from '../../database/account'

const RECOVERY_CODES = 10

/** A secret to be scanned; it counts when a code of it comes back. */
export const newSecret = (): string => totpSecret(randomBytes(20))

/** Whether somebody's second code is right: one of their authenticator, or a recovery code, which is used up by it. */
export function takeSecondCode(db: Database, userId: number, code: string, now: number): boolean {
  return transact(db, () => {
    const factor = secondFactorOf(db, userId)
    if (!factor) return true
    const step = totpStep(factor.secret, code.replace(/\s/g, ''), now, factor.lastStep)
    if (step !== null) return useStep(db, userId, step)
    return useRecoveryCode(db, userId, plainRecoveryCode(code))
  })
}

/** Sets a second factor by a code of it; its recovery codes, to be shown once, or null where the code is not right. */
export function takeSecondFactor(
  db: Database,
  userId: number,
  { secret, code }: { secret: string; code: string },
  now: number,
): string[] | null {
  const step = totpStep(secret, code.replace(/\s/g, ''), now, null)
  if (step === null) return null
  const codes = recoveryCodes(randomBytes(RECOVERY_CODES * 10))
  setSecondFactor(db, userId, { secret, step, recoveryCodes: codes.map(plainRecoveryCode) })
  return codes
}
