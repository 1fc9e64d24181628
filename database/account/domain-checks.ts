import { createPublicKey } from 'node:crypto'
import type { DomainCheck } from '../../core/authentication'
import { HOUR } from '../../core/time'
import { readAccount } from './account'
import { all, one, q, run, type Database } from '../query'

/** An answer counts as known for this long. */
const FRESH = 6 * HOUR

/** The domain letters come from; null before there is an account. */
export function senderDomain(db: Database): string | null {
  const address = readAccount(db)?.sender_address
  return address ? address.slice(address.lastIndexOf('@') + 1).toLowerCase() : null
}

/**
 * What is known of the sender's domain; null where it was never asked. Where it was asked too long ago, or `anew`, it is
 * put on the engine's list, and what was known is told meanwhile.
 */
export function domainCheck(
  db: Database,
  now: number,
  anew = false,
): { check: DomainCheck; at: number } | null {
  const domain = senderDomain(db)
  if (domain === null) return null
  const known = one(db, q.selectFrom('domain_checks').selectAll().where('domain', '=', domain))
  if (anew || !known || known.asked_at <= now - FRESH)
    run(
      db,
      q
        .insertInto('domain_checks')
        .values({ domain, asked_at: now })
        .onConflict((c) => c.column('domain').doUpdateSet({ asked_at: now, checked_at: null })),
    )
  return known?.result
    ? { check: JSON.parse(known.result) as DomainCheck, at: known.checked_at ?? known.asked_at }
    : null
}

/** Domains that wait to be asked about. */
export function domainsToCheck(db: Database): string[] {
  return all(
    db,
    q.selectFrom('domain_checks').select('domain').where('checked_at', 'is', null),
  ).map(({ domain }) => domain)
}

export function saveDomainCheck(db: Database, check: DomainCheck, now: number) {
  run(
    db,
    q
      .updateTable('domain_checks')
      .set({ result: JSON.stringify(check), checked_at: now })
      .where('domain', '=', check.domain),
  )
}

/** With what letters are signed: the selector, and the public part of the key as it stands in its record. */
export function signingKey(db: Database): { selector: string; publicKey: string } {
  const { dkim_selector, dkim_private_key } = readAccount(db)!
  const der = createPublicKey(dkim_private_key).export({ type: 'spki', format: 'der' })
  return { selector: dkim_selector, publicKey: der.toString('base64') }
}
