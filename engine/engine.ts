import type { Logger } from 'pino'
import type { Inbound } from '../core/inbound'
import type { FeedEntry } from '../core/letters'
import type { compileLetter } from '../core/letters/rendering'
import type { Clock } from '../core/time'
import type { Database } from '../database'
import type { engineNotes, Job } from '../database/jobs'

/** What every kind of work is given. */
export interface Engine {
  id: string
  db: Database
  /** The time all work goes by; the practice clock in the practice world. */
  clock: Clock
  /** The host's time, only for signs of life and for waiting on other machines. */
  hostClock: Clock
  log: Logger
  settings: EngineSettings
  /** What it is just about to make, for those who find it dead. */
  notes: Pick<ReturnType<typeof engineNotes>, 'begin' | 'over'>
  /** Makes a letter ready to be merged; it and those that follow work apart from all that has to go on (cases/apart). */
  compile: typeof compileLetter
  readFeed(text: string, url: string): Promise<FeedEntry[]>
  readReport(raw: string): Promise<Inbound>
  /** Somebody is due and can't be mailed just now: the pace is used up, or no mail server answers. */
  stalled: boolean
  /** The practice clock is on its way to a later time, and waits at every leap for what is due there. */
  jumping: boolean
}

export interface EngineSettings {
  /** Data folder. */
  data: string
  /** Public address of the web process, without a slash at the end. */
  url: string
  /** Where mail is handed over; null: nothing is sent. */
  smtpUrl: string | null
  /** Name server to ask, as address and port; null: the host's own. */
  nameServer: string | null
  /** Addresses mail goes out from; none: those of the mail server. */
  sendsFrom: readonly string[]
  /** HTTP proxy for asking links; the practice world's web stands behind one. */
  webProxy: string | null
  /** What is asked though it lies in no public network: hosts, with or without a port. */
  mayReach: readonly string[]
  /** Conversations with the mail server at a time. */
  connections: number
  /** Sign with DKIM. Off only where signing is not what is measured. */
  sign: boolean
}

/**
 * One kind of work. Does a small step and says whether there was something to do; it is called
 * again soon, and sooner if there was. A step may be cut off anywhere and done again.
 */
export type Work = (engine: Engine) => Promise<boolean> | boolean

/** One kind of job. */
export interface JobWork {
  /** Carries it out; whether it was cancelled. Throws where it fails. May be begun again by another process. */
  carryOut(engine: Engine, job: Job): Promise<boolean>
  /** What else is to be noted where it failed. */
  failed?(engine: Engine, job: Job): void
}

/** An engine without a sign of life for this long is given up for dead. */
export const DEAD_AFTER = 4_000
