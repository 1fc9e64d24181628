import {
  advance,
  BACK,
  enter,
  type ArrivalFacts,
  type Ending,
  type SequenceMap,
} from '../sequences'
import type { Happening } from '../sequences'
import { roomUnder, type FrequencyCap } from '../dispatch'
import { afterQuiet, type QuietHours } from '../time'
import type { Life } from './life'

/** Somebody who walks through a map in virtual time. */
export interface Walker extends ArrivalFacts {
  life: Life
  /** When sequences write nothing; absent or null: they always may. */
  quiet?: QuietHours | null
  /** How much mail they get at most; absent or null: as much as there is. */
  cap?: FrequencyCap | null
  /** When they got other mail than this sequence's, up to a time, as far as a cap asks for it. Absent: they got none. */
  otherMail?: (until: number) => readonly number[]
  /** Where they fall by lot at a step, from 0 up to but not including 1. */
  lot: (step: string) => number
}

/** What is seen on the way. */
export interface Seen {
  /** They went by a step, by one of its ways; of a goal way 1: it was reached. */
  passed?(step: string, way: number, at: number): void
  mailed?(step: string, mailingId: number, at: number): void
}

/** How a walk came out: where they stand, or how they ended. */
export type Walked =
  { inside: string; due: number; ended: null } | { inside: null; at: number; ended: Ending }

/**
 * Walks somebody through a map from when they come in until a time, as the engine would: each step when it is due, and
 * whoever waits for something whenever they do anything.
 */
export function walk(
  map: SequenceMap,
  walker: Walker,
  from: number,
  until: number,
  seen: Seen,
): Walked {
  const { life, zone, fieldOf, bestHour, lot } = walker
  let now = from
  let isOut = false
  const handed = new Set<string>()
  const mailed: number[] = []
  /** Which mails they got: one comes once in a round, also to who was sent back to it. */
  const got: number[] = []
  const wentBack: Record<string, number> = {}
  const facts = {
    subscribed: true,
    suppressed: false,
    pausedUntil: null,
    holds(what: Happening, within = Infinity) {
      // Another program takes whoever is handed over, at once; what its answer says besides, nobody can tell.
      if (what.is === 'answered') return what.taken && !what.where && handed.has(what.step)
      const at = life.when(what)
      return at <= now && at < from + within
    },
    sharesOf() {
      return null
    },
    roomFrom() {
      if (!walker.cap) return now
      return roomUnder(walker.cap, [...mailed, ...(walker.otherMail?.(now) ?? [])], now)
    },
    quietUntil() {
      return walker.quiet ? afterQuiet(now, walker.quiet, zone) : now
    },
    wentBack(step: string) {
      return wentBack[step] ?? 0
    },
    lot,
    zone,
    fieldOf,
    bestHour,
  }
  let place = enter(map, from, walker)
  if (place === null) return { inside: null, at: from, ended: { state: 'finished', why: null } }
  for (;;) {
    now = Math.max(now, place.due)
    if (now > until) return { inside: place.step, due: place.due, ended: null }
    facts.subscribed = !isOut && life.leaves() > now
    const { effects, next, ended, passed } = advance(map, place, facts, now)
    for (const effect of effects) {
      if (effect.is === 'mail') {
        if (got.includes(effect.mailingId) || effect.others?.some((one) => got.includes(one)))
          continue
        got.push(effect.mailingId)
        mailed.push(now)
        life.got(place.step, now)
        seen.mailed?.(place.step, effect.mailingId, now)
      }
      if (effect.is === 'leave' && effect.listId === null) isOut = true
      if (effect.is === 'hand') handed.add(place.step)
    }
    if (passed) seen.passed?.(passed.step, passed.way, now)
    if (passed?.way === BACK) wentBack[passed.step] = (wentBack[passed.step] ?? 0) + 1
    if (ended) return { inside: null, at: now, ended }
    // Who stays waits for something: they are looked at again when they do anything.
    place = passed ? next! : { ...next!, due: Math.min(next!.due, life.next(now)) }
  }
}
