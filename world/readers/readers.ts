import { Agenda } from '../agenda'
import { chanceOf } from '../chance'
import type { FollowedClock } from '../followed-clock'
import type { Folder } from '../post-office/mailboxes'
import { mailboxExists, providerOf } from '../post-office/providers'
import { bounceReport, complaintReport } from '../post-office/reports'
import { visit, type ShopAct } from '../shop/visit'
import { isShop } from '../web/site'
import { awayMail, leaveMail, replyMail } from './answers'
import { habitsOf, readingTime } from './habits'
import { readLetter, type ReadLetter } from './letter'

/** Something a reader, or their provider, does over HTTP. */
type Deed =
  | { do: 'get'; url: string; agent: string; method?: 'GET' | 'HEAD' }
  | { do: 'follow'; url: string; agent: string; address: string }
  | { do: 'shop'; kind: ShopAct['kind']; entry: ShopAct['entry'] }
  | { do: 'leave-by-page'; url: string; agent: string }
  | { do: 'leave-by-header'; url: string; agent: string }
  | { do: 'report'; message: string }

const MINUTE = 60_000
/** The user agent of a provider that fetches every picture on arrival. */
const prefetchAgent = 'Mozilla/5.0'
const scannerAgent = 'Workdesk link scanner/2.2'

/**
 * The readers of the practice world. They have nothing but the mail that came: they fetch its
 * pictures and links, leave by its unsubscribe link, and complain to their provider.
 */
export function gatherReaders(options: {
  clock: FollowedClock
  reportsUrl: string | null
  seed: string
  /** Where the shop tells what happens in it; null: it keeps that to itself. */
  tell: ((told: { kind: ShopAct['kind']; entry: ShopAct['entry'] }) => void) | null
}) {
  const { clock, reportsUrl, seed, tell } = options
  const agenda = new Agenda<Deed>()
  const received = new Map<string, number[]>()
  let underWay = 0
  let stopped = false

  /** A letter came into a mailbox: what will come of it is put on the agenda. */
  function take(mail: {
    address: string
    returnPath: string
    source: string
    folder: Folder
  }): ReadLetter {
    const letter = readLetter(mail.source)
    const now = clock.now()
    const provider = providerOf(mail.address)
    if (!mailboxExists(mail.address)) {
      agenda.add(now + 2 * MINUTE, {
        do: 'report',
        message: bounceReport(mail.returnPath, mail.address, letter.messageId),
      })
      return letter
    }
    if (chanceOf('away', mail.address, letter.messageId) < 0.01)
      send(awayMail(mail.returnPath, mail.address, letter.subject, letter.messageId), now + MINUTE)
    if (provider.prefetches)
      for (const url of letter.pictures)
        agenda.add(now + 500, { do: 'get', url, agent: prefetchAgent })
    if (provider.scansLinks)
      for (const url of letter.links)
        agenda.add(now + 800, { do: 'get', url, agent: scannerAgent, method: 'HEAD' })
    // Into that folder hardly anybody looks.
    if (
      mail.folder === 'inbox' ||
      chanceOf('looks into junk', mail.address, letter.messageId) < 0.05
    )
      read(mail, letter, now, provider.reportsComplaints)
    return letter
  }

  /** Mail that readers write, or their programs, is handed in as a mail server would hand it. */
  function send(message: string, at: number) {
    agenda.add(at, { do: 'report', message })
  }

  function read(
    mail: { address: string; returnPath: string },
    letter: ReadLetter,
    now: number,
    reports: boolean,
  ) {
    const habits = habitsOf(mail.address)
    let n = 0
    const chance = () => chanceOf(seed, mail.address, letter.messageId, n++)
    if (chance() > habits.opens * patience(mail.address, now)) return
    const at = readingTime(habits, now, chance)
    if (!habits.picturesOff)
      for (const url of letter.pictures) agenda.add(at, { do: 'get', url, agent: habits.agent })
    const { replyTo, subject, messageId } = letter
    if (replyTo && chanceOf('replies', mail.address, messageId) < habits.replies)
      send(replyMail(replyTo, mail.address, subject, messageId), at + 4 * MINUTE)
    const links = letter.links.filter((url) => url !== letter.unsubscribe)
    if (links.length && chance() < habits.clicks) {
      const first = Math.floor(chance() ** 1.8 * links.length)
      agenda.add(at + 20_000 + chance() * 90_000, {
        do: 'follow',
        url: links[first]!,
        agent: habits.agent,
        address: mail.address,
      })
      if (chance() < 0.2)
        agenda.add(at + 3 * MINUTE, {
          do: 'get',
          url: links[Math.floor(chance() * links.length)]!,
          agent: habits.agent,
        })
    }
    if (chance() < habits.complains && reports) {
      agenda.add(at + MINUTE, {
        do: 'report',
        message: complaintReport(mail.returnPath, mail.address, letter.messageId),
      })
    } else if (letter.unsubscribe && chance() < habits.leaves) {
      const way = chance()
      const by = way < 0.5 ? 'leave-by-page' : 'leave-by-header'
      if (way > 0.9 && letter.leaveBy) send(leaveMail(letter.leaveBy, mail.address), at + MINUTE)
      else agenda.add(at + MINUTE, { do: by, url: letter.unsubscribe, agent: habits.agent })
    }
  }

  /** Who gets more than three letters a week opens fewer of them. */
  function patience(address: string, now: number): number {
    const week = (received.get(address) ?? []).filter((at) => at > now - 7 * 24 * 60 * MINUTE)
    week.push(now)
    received.set(address, week)
    return week.length <= 3 ? 1 : 3 / week.length
  }

  /** A link led to the shop: what comes of it is put on the agenda. */
  function goShopping({ address, url }: { address: string; url: string }, to: URL) {
    if (!isShop(to)) return
    let n = 0
    const chance = () => chanceOf(seed, 'shop', address, url, n++)
    const number = `S-${Math.floor(chanceOf(seed, address, url) * 1e9)}`
    for (const { after, kind, entry } of visit(address, to, number, chance))
      agenda.add(clock.now() + after, { do: 'shop', kind, entry })
  }

  async function carryOut(deed: Deed) {
    try {
      switch (deed.do) {
        case 'get': {
          const response = await fetch(deed.url, {
            method: deed.method ?? 'GET',
            redirect: 'manual',
            headers: { 'User-Agent': deed.agent },
            signal: AbortSignal.timeout(10_000),
          })
          await response.arrayBuffer()
          return
        }
        case 'follow': {
          const response = await fetch(deed.url, {
            redirect: 'manual',
            headers: { 'User-Agent': deed.agent },
            signal: AbortSignal.timeout(10_000),
          })
          await response.arrayBuffer()
          const to = response.headers.get('location')
          if (to && tell) goShopping(deed, new URL(to, deed.url))
          return
        }
        case 'shop':
          tell?.({
            kind: deed.kind,
            entry: { ...deed.entry, at: new Date(clock.now()).toISOString() },
          })
          return
        case 'leave-by-page': {
          const page = await (
            await fetch(deed.url, { headers: { 'User-Agent': deed.agent } })
          ).text()
          const action = /<form[^>]*method="post"[^>]*action="([^"]+)"/i.exec(page)?.[1]
          if (action)
            await fetch(new URL(action, deed.url), {
              method: 'POST',
              body: new URLSearchParams({ leave: 'yes' }),
              headers: { 'User-Agent': deed.agent },
            })
          return
        }
        case 'leave-by-header':
          await fetch(deed.url, {
            method: 'POST',
            body: new URLSearchParams({ 'List-Unsubscribe': 'One-Click' }),
            headers: { 'User-Agent': deed.agent },
          })
          return
        case 'report':
          if (reportsUrl)
            await fetch(reportsUrl, {
              method: 'POST',
              body: deed.message,
              headers: { 'Content-Type': 'message/rfc822' },
            })
      }
    } catch {
      // A reader whose request fails shrugs and goes on with the day.
    }
  }

  async function live() {
    while (!stopped) {
      const now = clock.now()
      const due = agenda.takeDue(now, Math.max(0, 40 - underWay))
      for (const deed of due) {
        underWay++
        void carryOut(deed).finally(() => underWay--)
      }
      if (due.length === 0 && underWay === 0) clock.followedTo(now)
      await new Promise((resolve) => setTimeout(resolve, due.length ? 2 : 10))
    }
  }
  void live()

  return {
    received: take,
    waiting: () => agenda.size + underWay,
    stop: () => (stopped = true),
  }
}
