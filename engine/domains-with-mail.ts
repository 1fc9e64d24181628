import { Resolver } from 'node:dns/promises'
import { createRequire } from 'node:module'
import type { UnderstoodRow } from '../database/imports'
import { DAY } from '../core/time'
import type { Engine, EngineSettings } from './engine'

/** More domains than this are not asked about in one import. */
const MOST_ASKED = 3_000
const AT_ONCE = 16
/** After so many questions in a row without an answer there are no name servers. */
const GIVE_UP_AFTER = 3
const KEPT = DAY
const MOST_KEPT = 50_000

// The package is a list in JSON, which modules can't import without saying so.
const throwawayDomains = new Set(
  createRequire(import.meta.url)('disposable-email-domains') as string[],
)
/** What was answered: whether a domain takes mail; of a process, for a day of the host's clock. */
const answers = new Map<string, { takesMail: boolean; at: number }>()

/**
 * Tells what is doubtful about a domain, and adds it to rows of an import: that it is one of those whose addresses are thrown away, or that it
 * takes no mail, as name servers say (RFC 5321, 5.1; RFC 7505). Where nobody can be asked, nothing is said of that.
 */
export function domainsWithMail({ settings, hostClock }: Engine) {
  let left = asks(settings) ? MOST_ASKED : 0
  let unanswered = 0
  const resolver = new Resolver({ timeout: 1_500, tries: 1 })
  if (settings.nameServer) resolver.setServers([settings.nameServer])

  async function takesMail(domain: string): Promise<boolean> {
    const known = answers.get(domain)
    if (known && hostClock() - known.at < KEPT) return known.takesMail
    if (left <= 0 || unanswered >= GIVE_UP_AFTER) return true
    left--
    const answer = await mailAt(resolver, domain)
    unanswered = answer === null ? unanswered + 1 : 0
    if (answer === null) return true
    if (answers.size >= MOST_KEPT) answers.clear()
    answers.set(domain, { takesMail: answer, at: hostClock() })
    return answer
  }

  return {
    /** Why nobody writes from a domain; null where nothing is known against it. */
    async doubt(domain: string): Promise<'thrown' | 'nowhere' | null> {
      if (isThrowaway(domain)) return 'thrown'
      return (await takesMail(domain)) ? null : 'nowhere'
    },
    async caution(rows: readonly UnderstoodRow[]) {
      const entries = rows.flatMap((row) => ('entry' in row ? [row.entry] : []))
      const domains = [...new Set(entries.map(({ domain }) => domain))]
      const without = new Set<string>()
      for (let i = 0; i < domains.length; i += AT_ONCE)
        await Promise.all(
          domains.slice(i, i + AT_ONCE).map(async (domain) => {
            if (!(await takesMail(domain))) without.add(domain)
          }),
        )
      for (const { domain, cautions } of entries) {
        if (isThrowaway(domain)) cautions.push(`Addresses at ${domain} are thrown away after use.`)
        if (without.has(domain)) cautions.push(`${domain} takes no mail, name servers say.`)
      }
    },
  }
}

/** Whether name servers are asked: where one is set, or mail goes out at all. */
const asks = ({ nameServer, smtpUrl }: EngineSettings) => nameServer !== null || smtpUrl !== null

/** A domain or one above it is on the list. */
function isThrowaway(domain: string): boolean {
  const labels = domain.split('.')
  return labels.some(
    (_, i) => i < labels.length - 1 && throwawayDomains.has(labels.slice(i).join('.')),
  )
}

/** Whether a domain takes mail: it names a mail server, or has an address itself; null: no answer came. */
async function mailAt(resolver: Resolver, domain: string): Promise<boolean | null> {
  try {
    const servers = await resolver.resolveMx(domain)
    // A single server without a name says that the domain takes none (RFC 7505).
    if (servers.length) return servers.some(({ exchange }) => exchange !== '' && exchange !== '.')
  } catch (error) {
    if (isCode(error, 'ENOTFOUND')) return false
    if (!isCode(error, 'ENODATA')) return null
  }
  const found = await Promise.all(
    (['A', 'AAAA'] as const).map((type) =>
      resolver.resolve(domain, type).then(
        (addresses) => addresses.length > 0,
        (error: unknown) => (isCode(error, 'ENODATA') || isCode(error, 'ENOTFOUND') ? false : null),
      ),
    ),
  )
  return found.includes(true) ? true : found.includes(null) ? null : false
}

const isCode = (error: unknown, code: string) => (error as { code?: string }).code === code
