import { spf } from 'mailauth/lib/spf/index.js'
import type { Resolve } from './names'

export type SpfResult =
  'pass' | 'fail' | 'softfail' | 'neutral' | 'none' | 'permerror' | 'temperror'

/**
 * What a provider makes of mail from an address that comes to it from `ip`, with the return path at a domain
 * (RFC 7208, `check_host`). `why` is the library's own text where it is an error.
 */
export async function evaluateSpf(
  domain: string,
  ip: string,
  resolve: Resolve,
): Promise<{ result: SpfResult; why: string }> {
  const { status } = await spf({
    sender: `bounce@${domain}`,
    ip,
    helo: domain,
    resolver: (async (name: string, type: string) => {
      try {
        return await resolve(name, type)
      } catch (error) {
        const { code } = error as { code?: string }
        // The library takes faults that it has no name for, within an include, for a name that is not there.
        if (code !== 'ENOTFOUND' && code !== 'ENODATA')
          (error as { code: string }).code = 'ETIMEOUT'
        throw error
      }
    }) as never,
  })
  const comment = typeof status.comment === 'string' ? status.comment : ''
  return { result: status.result as SpfResult, why: comment }
}

/** Addresses nobody has (RFC 5737, 3849): who lets both of them send lets everybody. */
const nobodys = ['203.0.113.77', '198.51.100.77', '2001:db8:ffff::77']

/** Whether a record lets everybody send, by itself or by one that it includes. */
export async function letsEverybody(domain: string, resolve: Resolve): Promise<boolean> {
  for (const ip of nobodys)
    if ((await evaluateSpf(domain, ip, resolve)).result !== 'pass') return false
  return true
}

/** Why a record can't be evaluated, in words. */
export function spfFault(why: string): string {
  const none = /no SPF records found for (\S+)/i.exec(why)?.[1]
  if (/multiple SPF records found/i.test(why))
    return 'There is more than one SPF record, there or where it leads, so providers take none.'
  if (/too many dns requests/i.test(why))
    return 'It asks for more than ten other names, and providers stop there.'
  if (/too many void/i.test(why))
    return 'More than two of the names that it asks for are not there, and providers stop there.'
  if (none) return `It leads to ${none}, which has no SPF record.`
  const mechanism = /unknown mechanism (\S{1,40})/i.exec(why)?.[1]
  if (mechanism) return `“${mechanism}” is no word that providers know, so they take none of it.`
  return 'The record can’t be read, so providers take none of it.'
}
