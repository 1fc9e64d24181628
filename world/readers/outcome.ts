import { chanceOf } from '../chance'
import type { Folder } from '../post-office/mailboxes'
import { mailboxExists, mailboxIsFull, providerOf, shapeFor } from '../post-office/providers'
import { bounceReport, complaintReport, delayReport } from '../post-office/reports'
import { awayMail, leaveMail, replyMail } from './answers'
import type { Deed } from './deeds'
import { agentOf, habitsOf, readingTime } from './habits'
import type { ReadLetter } from './letter'

const MINUTE = 60_000
const HOUR = 60 * MINUTE
/** The user agent of a provider that fetches every picture on arrival. */
const prefetchAgent = 'Mozilla/5.0'
const scannerAgent = 'Workdesk link scanner/2.2'
/** Into the folder of what is not trusted hardly anybody looks. */
const LOOKS_INTO_JUNK = 0.05
/** How many times as often as usual somebody complains about mail of which there is too much. */
const UNWANTED = 5
/** Of those who have had enough, so many ask for less where a letter offers it. */
const LESS_INSTEAD = 0.25
/** Of those who get a confirming letter, who press its button. */
const CONFIRMS = 0.78
/** Messages that are late at a provider which reports afterwards. */
const LATE = 0.002

export interface ArrivedMail {
  address: string
  returnPath: string
  folder: Folder
}

/**
 * All that comes of a letter that arrived at `now`, with when: what the provider does at once, what comes back, and what its
 * reader does. Always the same for the same letter, reader and seed.
 * @param patience How gladly the reader still reads: 1, less where they got too much lately.
 */
export function outcomeOf(
  mail: ArrivedMail,
  letter: ReadLetter,
  { now, seed, patience }: { now: number; seed: string; patience: number },
): { at: number; deed: Deed }[] {
  const { address, returnPath } = mail
  const { messageId } = letter
  const found: { at: number; deed: Deed }[] = []
  const add = (at: number, deed: Deed) => void found.push({ at, deed })
  const report = (at: number, message: string) => add(at, { do: 'report', message })
  const chance = (what: string) => chanceOf(what, seed, address, messageId)
  const provider = providerOf(address)
  const why = !mailboxExists(address) ? 'no mailbox' : mailboxIsFull(address, now) ? 'full' : null
  if (why) {
    report(now + 2 * MINUTE, bounceReport(returnPath, address, messageId, shapeFor(address), why))
    return found
  }
  if (provider.bouncesLater && chance('late') < LATE)
    report(now + 4 * HOUR, delayReport(returnPath, address, messageId))
  if (chance('away') < provider.away)
    report(now + MINUTE, awayMail(returnPath, address, letter.subject, messageId))
  if (provider.prefetches)
    for (const url of letter.pictures) add(now + 500, { do: 'get', url, agent: prefetchAgent })
  if (provider.scansLinks)
    for (const url of [...letter.links, letter.confirmBy ?? []].flat())
      add(now + 800, { do: 'get', url, agent: scannerAgent, method: 'HEAD' })
  if (chanceOf('reads', address) >= provider.reads) return found
  if (mail.folder === 'inbox' || chance('looks into junk') < LOOKS_INTO_JUNK)
    read(mail, letter, { now, seed, patience }, add)
  return found
}

function read(
  { address, returnPath }: ArrivedMail,
  letter: ReadLetter,
  { now, seed, patience }: { now: number; seed: string; patience: number },
  add: (at: number, deed: Deed) => void,
) {
  const { messageId, replyTo, subject, unsubscribe, leaveBy, ownPage, confirmBy } = letter
  const habits = habitsOf(address)
  // Who just signed up sits before it and waits for this one.
  if (confirmBy) {
    const at = now + (1 + 30 * chanceOf('confirms at', seed, address, messageId) ** 3) * MINUTE
    if (chanceOf('confirms', seed, address, messageId) < CONFIRMS)
      add(at, { do: 'confirm-by-page', url: confirmBy, agent: habits.agent })
    return
  }
  const provider = providerOf(address)
  let n = 0
  const chance = () => chanceOf(seed, address, messageId, n++)
  const share = (what: string) => chanceOf(what, seed, address, messageId)
  const opens = chance() <= habits.opens * patience
  const at = readingTime(habits, now, chance)
  const unwanted = patience < 1 ? UNWANTED : 1
  // To complain one need not have opened it.
  const complains = share('complains') < provider.complaints * habits.complains * unwanted
  if (complains && provider.reportsComplaints)
    add(at + MINUTE, {
      do: 'report',
      message: complaintReport(returnPath, address, messageId),
    })
  if (!opens) return
  const look = (when: number, agent: string) => {
    if (habits.picturesOff) return
    for (const url of letter.pictures) add(when, { do: 'get', url, agent })
  }
  look(at, habits.agent)
  if (share('reopens') < provider.reopens) look(at + (1 + 40 * share('when')) * HOUR, habits.agent)
  if (share('forwards') < provider.forwards)
    look(at + (0.2 + 10 * share('then')) * HOUR, agentOf(address, 'of a friend'))
  // Replies are so many of what was delivered, and only who opened a letter writes one.
  if (
    replyTo &&
    share('replies') < (provider.replies * habits.replies) / Math.max(0.2, habits.opens)
  )
    add(at + 4 * MINUTE, {
      do: 'report',
      message: replyMail(replyTo, address, subject, messageId),
    })
  const links = letter.links.filter((url) => url !== unsubscribe)
  if (links.length && chance() < habits.clicks) {
    const first = Math.floor(chance() ** 1.8 * links.length)
    const url = links[first]!
    add(at + 20_000 + chance() * 90_000, { do: 'follow', url, agent: habits.agent, address })
    if (chance() < 0.2) {
      const second = links[Math.floor(chance() * links.length)]!
      add(at + 3 * MINUTE, { do: 'get', url: second, agent: habits.agent })
    }
  }
  if (complains || !unsubscribe || chance() >= habits.leaves) return
  if (ownPage && share('less instead') < LESS_INSTEAD) {
    const weeks = [2, 4, 8][Math.floor(3 * share('weeks'))]!
    const wish = share('wish') < 0.5 ? { do: 'weekly' } : { do: 'pause', weeks: String(weeks) }
    return add(at + MINUTE, { do: 'less-by-page', url: ownPage, agent: habits.agent, wish })
  }
  const way = chance()
  if (way > 0.9 && leaveBy) add(at + MINUTE, { do: 'report', message: leaveMail(leaveBy, address) })
  else
    add(at + MINUTE, {
      do: way < 0.5 ? 'leave-by-page' : 'leave-by-header',
      url: unsubscribe,
      agent: habits.agent,
    })
}
