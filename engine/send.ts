import { setTimeout as wait } from 'node:timers/promises'
import {
  nextAttempt,
  pourMessage,
  readAnswer,
  refill,
  takeFromBucket,
  type Bucket,
  type PouredMessage,
} from '../core/delivery'
import { truthOf, type FillInContext } from '../core/letters'
import { fillFor, personContext, shownFor, type PickedProduct } from '../core/letters/rendering'
import type { Rule } from '../core/segments'
import { transact } from '../database'
import type { Account } from '../database/account'
import type { Claimed, Settled } from '../database/claims'
import { moveMailing, sendingMailings, setWaitingNote, totalsOf } from '../database/mailings'
import { allPartsBegun } from '../database/parts'
import { valuesOf } from '../database/people'
import { nextRecipientDue } from '../database/recipients'
import { truthsOf } from '../database/renditions'
import type { Engine } from './engine'
import { beginMailing, type GoingLetter, type GoingMailing } from './going-mailing'
import { connectMailServer, type MailServer } from './mail-server'
import { openSigners, type Signers } from './signers'

/** Somebody to be mailed, which of the letter's rules hold for them, as bits, what is picked for them and what they did. */
interface Reader {
  recipient: Claimed
  of: GoingMailing
  letter: GoingLetter
  truth: number
  picks: Record<string, PickedProduct>
  did: FillInContext
}

const nothing = {}

/**
 * Recipients that are claimed and handed on at a time, for each connection: enough that connections
 * never wait for the disk. After a crash at most these are uncertain.
 */
const WINDOW = 4

/** Answers are written together: when half of those claimed have theirs, or after this many ms. */
const TOGETHER = 25

/** How long an engine that stops waits for the conversations under way, ms; those it leaves become uncertain. */
const PARTING = 5_000

/** How long the mail server is left alone after it did not answer. */
const LEAVE_ALONE = 3_000

/**
 * Sends what is due. Each turn is one transaction: the answers that came in are written, and as
 * many recipients are claimed as conversations are free. So a claim is on the disk before its
 * conversation, and never more are claimed than are in conversation.
 */
export function sender(engine: Engine) {
  const { db, clock, hostClock, settings, log } = engine
  const running = new Map<number, GoingMailing>()
  let server: MailServer | null = null
  let signers: Signers | null = null
  const half = (settings.connections * WINDOW) / 2
  let bucket: Bucket = { level: 0, at: 0 }
  let aloneUntil = 0
  let wake = () => {}
  let enough = () => {}

  async function step(): Promise<boolean> {
    const mailings = sendingMailings(db)
    for (const mailing of mailings)
      if (!running.has(mailing.id)) running.set(mailing.id, await beginMailing(engine, mailing))
    if (running.size === 0) {
      engine.stalled = false
      return false
    }
    server ??= connect([...running.values()][0]!.account)
    const sending = new Set(mailings.map(({ id }) => id))
    const reachable = hostClock() >= aloneUntil
    const conversations = transact(db, () => turn(sending, reachable))
    for (const reader of conversations) void converse(reader)
    engine.stalled = conversations.length === 0 && inFlight() === 0 && isSomebodyDue()
    finish(sending)
    if (inFlight() > 0) await nextAnswer()
    return inFlight() > 0 || conversations.length > 0
  }

  function connect(account: Account): MailServer {
    if (!settings.sign) return connectMailServer(settings, account, clock)
    signers = openSigners(account.dkim_private_key)
    return connectMailServer(settings, account, clock, signers.sign)
  }

  function isSomebodyDue(): boolean {
    const due = nextRecipientDue(db)
    return due !== null && due <= clock()
  }

  /** Writes what came in, claims what may go. */
  function turn(sending: Set<number>, reachable: boolean): Reader[] {
    const now = clock()
    const conversations: Reader[] = []
    for (const of of running.values()) {
      if (of.outcomes.length) of.claims.settle(of.outcomes.splice(0), now)
      if (!sending.has(of.mailing.id) || !reachable) continue
      bucket = refill(bucket, of.account.pace_per_minute, now)
      const free = settings.connections * WINDOW - inFlight() - conversations.length
      of.bucket = refill(of.bucket, of.perMinute, now)
      const wanted = takeFromBucket(of.bucket, Math.max(0, free)).taken
      const may = takeFromBucket(bucket, wanted)
      if (may.taken === 0) continue
      const claimed = of.claims.claim(may.taken, now)
      bucket = { ...may.bucket, level: may.bucket.level + may.taken - claimed.length }
      of.bucket = { ...of.bucket, level: of.bucket.level - claimed.length }
      of.letters.forEach((letter, variant) => {
        const theirs = claimed.filter((one) => (one.variant ?? 0) === variant)
        if (theirs.length) conversations.push(...readersOf(of, letter, theirs, now))
      })
    }
    for (const { of } of conversations) of.inFlight++
    return conversations
  }

  /** Those claimed with all that their messages are made from. */
  function readersOf(
    of: GoingMailing,
    letter: GoingLetter,
    claimed: readonly Claimed[],
    now: number,
  ): Reader[] {
    const ids = claimed.map(({ person_id }) => person_id)
    const truths = truthsIfAny(letter.compiled.rules, ids, now)
    const picked = letter.picker?.pickFor(ids)
    const did = letter.valuesFor?.(ids)
    return claimed.map((recipient) => ({
      recipient,
      of,
      letter,
      truth: truths?.get(recipient.person_id) ?? 0,
      picks: picked?.get(recipient.person_id) ?? nothing,
      did: did?.get(recipient.person_id) ?? nothing,
    }))
  }

  /** Which of a letter's rules hold for those claimed; null where it is the same for everybody. */
  function truthsIfAny(rules: readonly Rule[], personIds: readonly number[], now: number) {
    return rules.length === 0 ? null : truthsOf(db, personIds, rules, now)
  }

  /** One conversation with the mail server about one recipient; never throws. */
  async function converse(reader: Reader) {
    const outcome = await deliver(reader)
    const { of } = reader
    of.inFlight--
    of.outcomes.push(outcome)
    wake()
    if (unwritten() >= half) enough()
  }

  function messageFor({ recipient, of, letter, truth, picks, did }: Reader): PouredMessage {
    const context = personContext(
      { address: recipient.address, values: valuesOf(recipient) },
      { list: letter.listName, sender: letter.senderName, mailing: of.mailing.name },
      picks,
      did,
    )
    const name = [recipient.first_name, recipient.last_name].filter(Boolean).join(' ')
    return pourMessage(
      letter.mould,
      { personId: recipient.person_id, address: recipient.normal, name },
      fillFor(letter.compiled, context),
      clock(),
      shownFor(letter.compiled, truthOf(truth, letter.compiled.rules.length)),
    )
  }

  async function deliver(reader: Reader): Promise<Settled> {
    const { recipient, of, letter, truth } = reader
    const personId = recipient.person_id
    const { returnPath, raw } = messageFor(reader)
    const answer = await server!.send(returnPath, recipient.normal, raw)
    switch (answer.kind) {
      case 'accepted':
        if (of.mailing.waiting_note !== null) say(of, null)
        return {
          personId,
          to: 'accepted',
          answer: null,
          truth: letter.compiled.rules.length ? truth : null,
        }
      case 'refused': {
        const read = readAnswer(answer.code, answer.text)
        if (read.outcome === 'failed') return { personId, to: 'failed', answer: read.words }
        const due = nextAttempt(
          recipient.attempts,
          recipient.first_attempt_at,
          clock(),
          Math.random(),
        )
        if (due === null)
          return { personId, to: 'failed', answer: `${read.words} Given up after two days.` }
        return { personId, to: 'deferred', answer: read.words, due }
      }
      case 'unreachable':
        aloneUntil = hostClock() + LEAVE_ALONE
        say(
          of,
          `The mail server does not answer (${answer.why}). Satchel tries again every few seconds and goes on by itself.`,
        )
        return { personId, to: 'queued', answer: null }
      case 'unknown':
        return { personId, to: 'uncertain', answer: `The conversation broke off: ${answer.why}` }
    }
  }

  function say(of: GoingMailing, note: string | null) {
    of.mailing.waiting_note = note
    setWaitingNote(db, of.mailing.id, note)
  }

  /** Mailings with nobody left to mail are sent; those that were paused are forgotten here. */
  function finish(sending: Set<number>) {
    for (const [id, of] of running) {
      if (of.inFlight > 0 || of.outcomes.length > 0) continue
      if (!sending.has(id)) {
        running.delete(id)
        continue
      }
      const totals = totalsOf(db, id)
      if (!totals) continue
      if (totals.planned + totals.queued + totals.claimed + totals.deferred > 0) continue
      // Others may come by at any time.
      if (of.mailing.sequence_id !== null || !allPartsBegun(db, id)) continue
      moveMailing(db, id, ['sending'], 'sent', { finished_at: clock(), waiting_note: null })
      running.delete(id)
      log.info({ mailing: id, accepted: totals.accepted, failed: totals.failed }, 'mailing sent')
    }
  }

  function inFlight(): number {
    let sum = 0
    for (const of of running.values()) sum += of.inFlight
    return sum
  }

  function unwritten(): number {
    let sum = 0
    for (const of of running.values()) sum += of.outcomes.length
    return sum
  }

  /** Waits for an answer, and a little for others, so that they share one commit. */
  async function nextAnswer() {
    if (unwritten() === 0)
      await Promise.race([new Promise<void>((resolve) => (wake = resolve)), wait(200)])
    if (unwritten() < half && inFlight() > 0)
      await Promise.race([new Promise<void>((resolve) => (enough = resolve)), wait(TOGETHER)])
  }

  /** Waits for the conversations under way and writes what came of them. */
  async function close() {
    const end = performance.now() + PARTING
    const write = () => transact(db, () => turn(new Set(), false))
    while (inFlight() > 0 && performance.now() < end) {
      await nextAnswer()
      write()
    }
    write()
    server?.close()
    signers?.close()
  }

  return { step, close }
}
