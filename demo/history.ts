import { firstLinkOf, linksOf, type Letter } from '../core/letters'
import { leaveReasons, type LeaveReason } from '../core/results'
import { DAY, HOUR, MINUTE } from '../core/time'
import { prepared, q, run, type Database } from '../database'
import { createMailing, moveMailing, resetTotals, saveLinks } from '../database/mailings'
import { shownOf } from './shown'
import { beginTrial } from './trial'
import type { Chance } from './chance'
import type { DemoPerson } from './people'

/** A mailing of the past. */
export interface PastMailing {
  name: string
  list: number
  at: number
  letter: Letter
  /** How much better or worse than usual it was read. */
  appeal: number
  /** How much worse than usual it was delivered; 1 is as usual. */
  trouble: number
  /** Other subjects that were tried, and how each was liked against the first. */
  tried?: { subject: string; liked: number }[]
}

/** Writes past mailings with what came of each: recipients, opens, clicks, bounces, people who left. */
export function makeHistory(
  db: Database,
  chance: Chance,
  people: DemoPerson[],
  mailings: PastMailing[],
  now: number,
) {
  const write = historyStatements(db)
  const agents = {
    human: ['SailMail/4.1 (X11; Linux x86_64)', 'Quillreader/12.0', 'PocketPost/7.3 (phone)'].map(
      (text) => run(db, q.insertInto('agents').values({ text })).id,
    ),
    proxy: run(db, q.insertInto('agents').values({ text: 'Mozilla/5.0' })).id,
    scanner: run(db, q.insertInto('agents').values({ text: 'Workdesk link scanner/2.2' })).id,
  }
  /** Who was suppressed by a letter already. */
  const told = new Set<number>()
  for (const mailing of mailings) {
    const id = createMailing(
      db,
      { name: mailing.name, listId: mailing.list, letter: mailing.letter },
      mailing.at - 2 * DAY,
    )
    const links = linksOf(mailing.letter.document)
    // Each variant's links have numbers of their own.
    const variants = (mailing.tried?.length ?? 0) + 1
    saveLinks(
      db,
      id,
      Array.from({ length: variants }, (_, v) =>
        links.map((link, n) => ({ ...link, no: firstLinkOf(v) + n })),
      ).flat(),
    )
    const shown = shownOf(
      db,
      mailing.letter,
      people.map(({ id }) => id),
      mailing.at,
    )
    const trial = mailing.tried ? beginTrial(db, id, mailing, mailing.tried) : null
    const tellWhy: { person_id: number; reason: LeaveReason; at: number }[] = []
    const hours = new Map<number, { opens: number; clicks: number }>()
    const hour = (at: number) => {
      const n = Math.floor((at - mailing.at) / HOUR)
      if (!hours.has(n)) hours.set(n, { opens: 0, clicks: 0 })
      return hours.get(n)!
    }
    for (const { person, variant, part, after } of trial?.inParts(people) ??
      people.map((one) => ({ person: one, variant: null, part: null, after: 0 }))) {
      const on = person.lists.get(mailing.list)
      if (!on || on.since > mailing.at || on.until < mailing.at || person.setAsideAt < mailing.at)
        continue
      const accepted = mailing.at + after + Math.floor(chance.next() * 4 * MINUTE)
      // Whoever was suppressed was so by the letter before: it came back days later, or they complained about it.
      const ends =
        person.setAsideAt < mailing.at + 6 * DAY &&
        person.setAsideAt > accepted + 5 * MINUTE &&
        !told.has(person.id)
      if (ends) told.add(person.id)
      if (ends && person.setAsideBy === 'bounced') {
        write.recipient.run({
          round: 0,
          ...untouched,
          mailing: id,
          person: person.id,
          state: 'bounced',
          at: Math.floor(person.setAsideAt),
          accepted,
          answer: 'There is no such mailbox.',
          variant,
          part,
          truth: shown(person.id).truth,
        })
        continue
      }
      const troubled =
        person.domain === 'oldmill.example' ? 0.007 * mailing.trouble : 0.002 * mailing.trouble
      if (chance.is(troubled)) {
        const later = person.domain === 'oldmill.example'
        write.recipient.run({
          round: 0,
          ...untouched,
          mailing: id,
          person: person.id,
          state: later ? 'bounced' : 'failed',
          at: accepted,
          accepted: later ? accepted : null,
          // Who has no mailbox would be suppressed.
          answer: chance.is(0.7)
            ? 'The mailbox is full.'
            : 'The provider asks us to slow down. Given up after two days.',
          variant,
          part,
          truth: shown(person.id).truth,
        })
        continue
      }
      const machine = person.domain === 'veilpost.example' ? accepted + 700 : null
      const scanner =
        person.domain === 'workdesk.example' && chance.is(0.6) ? accepted + 1_200 : null
      if (machine !== null)
        write.act.run({
          round: 0,
          mailing: id,
          person: person.id,
          kind: 'open',
          link: null,
          at: machine,
          agent: agents.proxy,
          method: 'GET',
          verdict: 'machine',
        })
      if (scanner !== null)
        write.act.run({
          round: 0,
          mailing: id,
          person: person.id,
          kind: 'click',
          link: 0,
          at: scanner,
          agent: agents.scanner,
          method: 'HEAD',
          verdict: 'machine',
        })
      const glad =
        mailing.at > person.quietFrom
          ? 0.01
          : (0.1 + 0.78 * person.keen) * mailing.appeal * (trial?.liked(variant) ?? 1)
      const { truth, links: seen } = shown(person.id)
      let opened: number | null = null
      let clicked: number | null = null
      if (chance.is(glad)) {
        opened = Math.floor(accepted + readAfter(chance, mailing.at + after))
        if (opened > now) opened = null
      }
      const left =
        on.until > accepted + 5 * MINUTE && on.until < mailing.at + 6 * DAY && on.until < now
          ? Math.floor(on.until)
          : null
      const complained = ends && person.setAsideBy === 'complained'
      // Nobody leaves by a letter, or complains about it, without having read it first.
      const done = complained ? Math.floor(person.setAsideAt) : left
      if (done !== null && (opened === null || opened >= done))
        opened = accepted + Math.floor((0.1 + 0.8 * chance.next()) * (done - accepted))
      const agent = opened === null ? null : chance.pick(agents.human)
      if (opened !== null && agent !== null) {
        write.act.run({
          round: 0,
          mailing: id,
          person: person.id,
          kind: 'open',
          link: null,
          at: opened,
          agent,
          method: 'GET',
          verdict: 'human',
        })
        hour(opened).opens++
        if (chance.is(0.05 + 0.2 * person.keen)) {
          clicked = Math.min(now, opened + chance.between(8_000, 200_000))
          const nth = Math.floor(chance.next() ** 1.7 * seen.length)
          const link = firstLinkOf(variant ?? 0) + seen[nth]!
          write.act.run({
            round: 0,
            mailing: id,
            person: person.id,
            kind: 'click',
            link,
            at: clicked,
            agent,
            method: 'GET',
            verdict: 'human',
          })
          hour(clicked).clicks++
          person.clicks.push(clicked)
        }
      }
      // Some of those who left said why; not by chance, so that the rest of the account stays as it is.
      const why = left === null ? undefined : leaveReasons[(person.id * 7 + id) % 12]
      if (why) tellWhy.push({ person_id: person.id, reason: why.key, at: left! + MINUTE })
      write.recipient.run({
        round: 0,
        mailing: id,
        person: person.id,
        state: complained ? 'complained' : 'accepted',
        at: complained ? done! : accepted,
        accepted,
        opened,
        agent,
        clicked,
        left,
        machine,
        scanner,
        answer: null,
        variant,
        part,
        truth,
      })
    }
    for (const said of tellWhy)
      run(db, q.insertInto('leave_reasons').values({ mailing_id: id, ...said }))
    for (const [n, { opens, clicks }] of hours)
      run(db, q.insertInto('mailing_hours').values({ mailing_id: id, hour: n, opens, clicks }))
    moveMailing(db, id, ['draft'], 'sent', {
      scheduled_at: mailing.at,
      started_at: mailing.at,
      finished_at: mailing.at + (trial ? trial.hours * HOUR : 0) + 4 * MINUTE,
    })
    resetTotals(db, id)
  }
}

/** What nobody has done with a letter that did not come. */
const untouched = {
  ...{ opened: null, agent: null, clicked: null, left: null },
  ...{ machine: null, scanner: null },
}

/** How long after arrival somebody reads: often soon, else at lunch or in the evening, today or in the next days. */
function readAfter(chance: Chance, at: number): number {
  if (chance.is(0.5)) return MINUTE + -Math.log(1 - chance.next()) * 70 * MINUTE
  const hourOfDay = new Date(at).getUTCHours()
  const wanted = chance.pick([12, 13, 18, 20, 21])
  let wait = ((wanted - hourOfDay + 24) % 24) * HOUR + (chance.next() - 0.5) * 1.6 * HOUR
  while (chance.is(0.22)) wait += DAY
  return Math.max(MINUTE, wait)
}

export function historyStatements(db: Database) {
  return {
    recipient: prepared<{
      mailing: number
      person: number
      round: number
      state: string
      at: number
      accepted: number | null
      opened: number | null
      agent: number | null
      clicked: number | null
      left: number | null
      machine: number | null
      scanner: number | null
      answer: string | null
      variant: number | null
      part: number | null
      truth: number | null
    }>(db, (value) =>
      q.insertInto('recipients').values({
        mailing_id: value('mailing'),
        person_id: value('person'),
        round: value('round'),
        state: value('state'),
        at: value('at'),
        due: value('at'),
        attempts: 1,
        first_attempt_at: value('at'),
        accepted_at: value('accepted'),
        opened_at: value('opened'),
        opened_on: value('agent'),
        clicked_at: value('clicked'),
        left_at: value('left'),
        machine_at: value('machine'),
        scanner_at: value('scanner'),
        answer: value('answer'),
        variant: value('variant'),
        part: value('part'),
        truth: value('truth'),
      }),
    ),
    act: prepared<{
      mailing: number
      person: number
      round: number
      kind: string
      link: number | null
      at: number
      agent: number
      method: string
      verdict: string
    }>(db, (value) =>
      q.insertInto('acts').values({
        mailing_id: value('mailing'),
        person_id: value('person'),
        round: value('round'),
        kind: value('kind'),
        link: value('link'),
        at: value('at'),
        agent_id: value('agent'),
        method: value('method'),
        verdict: value('verdict'),
      }),
    ),
  }
}
