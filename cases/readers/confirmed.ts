import { checkAddress } from '../../core/people'
import { transact, type Database } from '../../database'
import {
  changePerson,
  erasePerson,
  isSuppressed,
  mergePeople,
  personByAddress,
  personDetails,
  restorePeople,
} from '../../database/people'
import { askOwn, recordOwnChange, useRequest, type Request } from '../../database/readers'
import type { Told } from '../../core/readers'

/**
 * Carries out that somebody has another address, which a mail to it has confirmed. Where somebody with that address is on
 * file already, the two become one. The former address is told, and can be had back. Whether it was done: once alone.
 * Times: `now` is the practice clock's, `hostNow` that of the links.
 */
export function changeAddress(
  db: Database,
  request: Request,
  { told, ip, agent }: { told: Told; ip: string | null; agent: string | null },
  { now, hostNow }: { now: number; hostNow: number },
): boolean {
  return transact(db, () => {
    const checked = checkAddress(request.address!)
    const details = personDetails(db, request.person_id)
    if (!checked.ok || !details || !useRequest(db, request.id, hostNow)) return false
    const { address, normal, domain } = checked
    const before = details.person.address
    // Mail came back from the address that goes; nothing is known against the new one.
    if (details.suppressed?.reason === 'bounced') restorePeople(db, [request.person_id])
    const other = personByAddress(db, normal)
    const merges = other !== undefined && other !== request.person_id
    const kept = merges ? other : request.person_id
    if (merges) mergePeople(db, kept, request.person_id, now)
    else changePerson(db, kept, { address, normal, domain }, now)
    recordOwnChange(
      db,
      kept,
      {
        what: 'address',
        detail: `Address: ${address}, before ${before}`,
        wording: told.plain(
          request.kind === 'address-back' ? 'addressBackButton' : 'addressButton',
        ),
        mailingId: request.mailing_id,
        ip,
        agent,
      },
      now,
    )
    // Two who have become one can't be parted again; and who has just had theirs back needs no way back.
    if (!merges && request.kind === 'address' && !isSuppressed(db, kept))
      askOwn(
        db,
        {
          personId: kept,
          kind: 'address-back',
          sentTo: before,
          address: before,
          language: request.language,
          mailingId: request.mailing_id,
        },
        hostNow,
      )
    return true
  })
}

/** Erases whoever confirmed that they want to be. Whether it was done. */
export function eraseMyself(
  db: Database,
  request: Request,
  { now, hostNow }: { now: number; hostNow: number },
): boolean {
  return transact(
    db,
    () => useRequest(db, request.id, hostNow) && erasePerson(db, request.person_id, now),
  )
}
