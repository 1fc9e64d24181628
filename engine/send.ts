import { totalOf } from '../core/counting'
import {
  nextAttempt,
  readAnswer,
  refill,
  shareOut,
  takeFromBucket,
  type Bucket,
} from '../core/delivery'
import { transact } from '../database'
import { paceOf, readAccount } from '../database/account'
import { followFailure } from '../database/people'
import { type Candidate, type Settled, nextRecipientDue } from '../database/sending'
import {
  holdMailing,
  moveMailing,
  sendingMailings,
  setWaitingNote,
  totalsOf,
  type Mailing,
  allPartsBegun,
} from '../database/mailings'
import type { Engine } from './engine'
import { beginMailing, type GoingMailing, type Ready } from './going-mailing'
import { connectMailServer, type MailServer } from './mail-server'
import { makeMessages } from './make-messages'
import { openSigners, type Signers } from './signers'

/** Messages that are made ahead for each connection, so that none waits for a signature; nobody of them is claimed yet. */
const AHEAD = 4

/**
 * Answers are written, and others claimed, together: when every connection has its answer, or this many ms after the
 * first. Each time costs a write that reaches the disk, and that is most of what a message costs besides its signature.
 */
const TOGETHER = 10

/** How long an engine that stops waits for the conversations under way, ms; those it leaves become uncertain. */
const PARTING = 5_000

/** How long the mail server is left alone after it did not answer. */
const LEAVE_ALONE = 3_000

/**
 * Sends what is due. Messages are made and signed ahead, for people who are only read. Each turn is one transaction: the
 * answers that came in are written, and as many of those whose message is ready are claimed as conversations are free. So
 * a claim is on the disk before its conversation, and never more are claimed than are in conversation.
 */
export function sender(engine: Engine) {
  const { db, clock, hostClock, settings, log, notes } = engine
  const running = new Map<number, GoingMailing>()
  let server: MailServer | null = null
  let signers: Signers | null = null
  let bucket: Bucket = { level: 0, at: 0 }
  let aloneUntil = 0
  let turns = 0
  let wake = () => {}

  async function step(): Promise<boolean> {
    const mailings = sendingMailings(db)
    for (const mailing of mailings) if (!running.has(mailing.id)) await begin(mailing)
    if (running.size === 0) {
      engine.stalled = false
      return false
    }
    server ??= connect()
    const sending = new Set(mailings.map(({ id }) => id))
    const reachable = hostClock() >= aloneUntil
    const { claimed, next } = transact(db, () => turn(sending, reachable))
    for (const [of, ready] of claimed) void converse(of, ready)
    for (const [of, candidates] of next) make(of, candidates)
    const idle = claimed.length === 0 && next.length === 0 && underway() === 0
    engine.stalled = idle && isSomebodyDue()
    finish(sending)
    if (underway() > 0) await nextAnswer()
    return underway() > 0 || !idle
  }

  /** A mailing whose letter can't be made is held with the reason; others go on. */
  async function begin(mailing: Mailing) {
    notes.begin({ mailing: mailing.id, what: 'letter' })
    try {
      running.set(mailing.id, await beginMailing(engine, mailing))
    } catch (error) {
      hold(mailing.id, `Its letter can’t be made: ${wordsOf(error)}`)
    } finally {
      notes.over()
    }
  }

  /** Its conversations come to their end; what comes of them is written as ever. */
  function hold(id: number, note: string) {
    holdMailing(db, id, { held_by: 'fault', held_note: note }, clock())
    log.error({ mailing: id }, 'held: its messages can’t be made')
  }

  function connect(): MailServer {
    const account = readAccount(db)!
    if (!settings.sign) return connectMailServer(settings, account, clock)
    signers = openSigners(account.dkim_private_key)
    return connectMailServer(settings, account, clock, signers.sign)
  }

  function isSomebodyDue(): boolean {
    const due = nextRecipientDue(db)
    return due !== null && due <= clock()
  }

  /** Writes what came in, claims those who are about to be spoken of, and reads who comes next. */
  function turn(sending: Set<number>, reachable: boolean) {
    const now = clock()
    const claimed: [GoingMailing, Ready][] = []
    const next: [GoingMailing, Candidate[]][] = []
    turns++
    for (const of of running.values()) {
      if (of.outcomes.length) settle(of, now)
      // What was made for a mailing that stands still is made anew when it goes on.
      if (!sending.has(of.mailing.id)) forget(of)
    }
    if (!reachable) return { claimed, next }
    const due = [...running.values()].filter(({ mailing }) => sending.has(mailing.id))
    const shares = shareOut(
      due.map(({ mailing, served, ready }) => ({
        id: mailing.id,
        goesFirst: mailing.sequence_id !== null,
        served,
        able: ready.length,
      })),
      settings.connections - inConversation(),
    )
    for (const of of due) {
      const many = shares.get(of.mailing.id) ?? 0
      if (many === 0) continue
      of.served = turns
      const some = of.ready.splice(0, many)
      const mine = new Set(
        of.claims.claim(
          some.map(({ recipient }) => recipient),
          now,
        ),
      )
      for (const one of some) {
        of.making.delete(one.recipient.person_id)
        if (mine.has(one.recipient)) claimed.push([of, one])
      }
    }
    for (const [of] of claimed) of.inConversation++
    bucket = refill(bucket, paceOf(db), now)
    const ahead = Math.ceil((settings.connections * AHEAD) / Math.max(1, due.length))
    for (const of of due) {
      const candidates = upcoming(of, ahead, now)
      if (candidates.length) next.push([of, candidates])
    }
    return { claimed, next }
  }

  /** Writes the answers that came in, and what follows from those that are for good. */
  function settle(of: GoingMailing, now: number) {
    const outcomes = of.outcomes.splice(0)
    of.claims.settle(outcomes, now)
    for (const { personId, failure, answer } of outcomes)
      if (failure) followFailure(db, personId, failure, answer ?? '', now)
  }

  /** Who comes next, as far as the paces of the account and of the mailing allow. */
  function upcoming(of: GoingMailing, ahead: number, now: number): Candidate[] {
    of.bucket = refill(of.bucket, of.perMinute, now)
    const wanted = takeFromBucket(of.bucket, Math.max(0, ahead - of.making.size)).taken
    const { taken } = takeFromBucket(bucket, wanted)
    if (taken === 0) return []
    const candidates = of.claims.upcoming(taken, new Set(of.making.keys()), now)
    bucket = { ...bucket, level: bucket.level - candidates.length }
    of.bucket = { ...of.bucket, level: of.bucket.level - candidates.length }
    for (const candidate of candidates) of.making.set(candidate.person_id, candidate)
    return candidates
  }

  function forget(of: GoingMailing) {
    of.making.clear()
    of.ready = []
  }

  /** Makes and signs messages; one that can't be made holds its mailing, never another. */
  function make(of: GoingMailing, candidates: readonly Candidate[]) {
    try {
      for (const { recipient, message, truth } of makeMessages(engine, of, candidates))
        void server!
          .prepare(message.returnPath, message.raw)
          .then((bytes) => {
            // It may have been paused, or somebody dropped, meanwhile.
            if (of.making.get(recipient.person_id) !== recipient) return
            of.ready.push({ recipient, returnPath: message.returnPath, bytes, truth })
          })
          .catch((error: unknown) =>
            hold(of.mailing.id, `A message can’t be signed: ${wordsOf(error)}`),
          )
          .finally(() => wake())
    } catch (error) {
      hold(of.mailing.id, `A message can’t be made: ${wordsOf(error)}`)
    } finally {
      notes.over()
    }
  }

  /** One conversation with the mail server about one recipient; never throws. */
  async function converse(of: GoingMailing, ready: Ready) {
    const outcome = await deliver(of, ready)
    of.inConversation--
    of.outcomes.push(outcome)
    wake()
  }

  async function deliver(of: GoingMailing, ready: Ready): Promise<Settled> {
    const { recipient, returnPath, bytes, truth } = ready
    const { person_id: personId, round } = recipient
    const answer = await server!.handOver(returnPath, recipient.normal, bytes)
    switch (answer.kind) {
      case 'accepted':
        if (of.mailing.waiting_note !== null) say(of, null)
        return { personId, round, to: 'accepted', answer: null, truth }
      case 'refused': {
        const read = readAnswer(answer.code, answer.text)
        if (read.outcome === 'failed')
          return {
            ...{ personId, round, to: 'failed' },
            ...{ answer: read.words, failure: read.failure },
          }
        const { attempts, first_attempt_at } = recipient
        const due = nextAttempt(attempts, first_attempt_at!, clock(), Math.random())
        if (due === null)
          return {
            ...{ personId, round, to: 'failed', failure: read.failure },
            answer: `${read.words} Given up after two days.`,
          }
        return { personId, round, to: 'deferred', answer: read.words, due }
      }
      case 'unreachable':
        aloneUntil = hostClock() + LEAVE_ALONE
        say(
          of,
          `The mail server does not answer (${answer.why}). Satchel tries again every few seconds and goes on by itself.`,
        )
        return { personId, round, to: 'queued', answer: null }
      case 'unknown':
        return {
          personId,
          round,
          to: 'uncertain',
          answer: `The conversation broke off: ${answer.why}`,
        }
    }
  }

  function say(of: GoingMailing, note: string | null) {
    of.mailing.waiting_note = note
    setWaitingNote(db, of.mailing.id, note)
  }

  /** Mailings with nobody left to mail are sent; those that were paused are forgotten here. */
  function finish(sending: Set<number>) {
    for (const [id, of] of running) {
      if (of.inConversation > 0 || of.outcomes.length > 0 || of.making.size > 0) continue
      if (!sending.has(id)) {
        running.delete(id)
        continue
      }
      const totals = totalsOf(db, id)
      if (!totals) continue
      if (totalOf(totals, 'waiting') > 0) continue
      // Others may come by at any time.
      if (of.mailing.sequence_id !== null || !allPartsBegun(db, id)) continue
      moveMailing(db, id, ['sending'], 'sent', { finished_at: clock(), waiting_note: null })
      running.delete(id)
      log.info({ mailing: id, accepted: totals.accepted, failed: totals.failed }, 'mailing sent')
    }
  }

  const sum = (of: (one: GoingMailing) => number) => {
    let all = 0
    for (const one of running.values()) all += of(one)
    return all
  }
  const inConversation = () => sum((of) => of.inConversation)
  const unwritten = () => sum((of) => of.outcomes.length)
  const signing = () => sum((of) => of.making.size - of.ready.length)
  /** Whatever will come to something by itself: conversations, and messages that are being signed. */
  const underway = () => inConversation() + signing()
  /** Whether a message could go now. */
  const canGo = () => inConversation() < settings.connections && sum((of) => of.ready.length) > 0

  /** Waits for an answer, and a little for others, so that they share one commit. */
  async function nextAnswer() {
    const come = () => inConversation() === 0 || (unwritten() === 0 && canGo())
    if (unwritten() === 0 && !canGo()) await nextChange(200)
    const end = performance.now() + TOGETHER
    while (!come() && underway() > 0 && performance.now() < end)
      await nextChange(Math.max(1, end - performance.now()))
  }

  /** Resolves when something has come in, or after so many ms. */
  function nextChange(ms: number): Promise<void> {
    return new Promise((resolve) => {
      const timer = setTimeout(done, ms)
      function done() {
        clearTimeout(timer)
        wake = () => {}
        resolve()
      }
      wake = done
    })
  }

  /** Waits for the conversations under way and writes what came of them. */
  async function close() {
    const end = performance.now() + PARTING
    const write = () => transact(db, () => turn(new Set(), false))
    while (inConversation() > 0 && performance.now() < end) {
      await nextAnswer()
      write()
    }
    write()
    server?.close()
    signers?.close()
  }

  return { step, close }
}

const wordsOf = (error: unknown) => (error instanceof Error ? error.message : String(error))
