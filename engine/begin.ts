import { randomUUID } from 'node:crypto'
import { setTimeout as wait } from 'node:timers/promises'
import pino from 'pino'
import { compileApart, readFeedApart, readReportApart } from '../cases/apart'
import { closeDatabase, openDatabase } from '../database'
import { clockOf } from '../database/account'
import { engineNotes, beat, engineStops } from '../database/jobs'
import type { Engine, Work } from './engine'
import { keepHeapSteady } from './steady-heap'

/** So many times shorter work rests while the practice clock jumps, since every leap waits for all of it. */
const BRISK = 10

/** Every kind of work a process does, and how long it rests where there was nothing to do, ms. */
export type Works = readonly (readonly [name: string, work: Work, idle: number])[]

/** An engine by what the environment tells, with signs of life, until `end` is called. */
export function beginEngine(name: 'engine' | 'jobs') {
  const settings = {
    data: required('SATCHEL_DATA'),
    url: required('SATCHEL_URL').replace(/\/+$/, ''),
    smtpUrl: process.env.SATCHEL_SMTP_URL || null,
    webProxy: process.env.SATCHEL_WEB_PROXY || null,
    mayReach: listOf(process.env.SATCHEL_MAY_REACH),
    nameServer: process.env.SATCHEL_DNS || null,
    sendsFrom: listOf(process.env.SATCHEL_SENDS_FROM),
    connections: Number(process.env.SATCHEL_SMTP_CONNECTIONS || 10),
    sign: process.env.SATCHEL_DKIM !== 'off',
  }
  keepHeapSteady()
  const db = openDatabase(settings.data, { durable: true })
  const id = process.env.SATCHEL_ENGINE_ID || `${name}-${randomUUID()}`
  const notes = engineNotes(settings.data, id)
  const engine: Engine = {
    id,
    db,
    clock: clockOf(db, Date.now),
    hostClock: Date.now,
    log: pino({ name, level: process.env.SATCHEL_LOG || 'info' }),
    settings,
    notes,
    compile: compileApart,
    readFeed: readFeedApart,
    readReport: readReportApart,
    stalled: false,
    jumping: false,
  }
  const giveSign = () => beat(settings.data, id, engine.hostClock())
  giveSign()
  const heart = setInterval(giveSign, 1_000)
  engine.log.info({ id }, 'engine runs')
  return {
    engine,
    end() {
      clearInterval(heart)
      engineStops(settings.data, id)
      notes.close()
      closeDatabase(db)
      engine.log.info({ id }, 'engine stopped')
    },
  }
}

const listOf = (words = '') => words.split(/[\s,]+/).filter(Boolean)

function required(name: string): string {
  const value = process.env[name]
  if (!value) throw new Error(`The engine needs ${name}.`)
  return value
}

/** Does every kind of work over and over until it is told to stop, then calls `onStop` and finishes the steps under way. */
export async function doUntilTold(engine: Engine, works: Works, onStop: () => void = () => {}) {
  let stopping = false
  for (const signal of ['SIGTERM', 'SIGINT'] as const)
    process.on(signal, () => {
      if (!stopping) onStop()
      stopping = true
    })

  /** Calls one kind of work over and over; a step that throws is logged and tried again. */
  async function keepDoing(name: string, work: Work, idle: number) {
    while (!stopping) {
      let busy = false
      try {
        busy = await work(engine)
      } catch (error) {
        engine.log.error(
          { work: name, error: error instanceof Error ? error.message : String(error) },
          'step failed',
        )
        await wait(1_000)
      }
      await wait(busy ? 0 : engine.jumping ? idle / BRISK : idle)
    }
  }
  await Promise.all(works.map((one) => keepDoing(...one)))
}
