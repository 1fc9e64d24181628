import { randomUUID } from 'node:crypto'
import { setTimeout as wait } from 'node:timers/promises'
import pino from 'pino'
import { closeDatabase, openDatabase } from '../database'
import { clockOf } from '../database/clock'
import { compileApart } from '../cases/letters/compile-apart'
import { engineNotes } from '../database/engine-notes'
import { beat, engineStops } from '../database/heartbeat'
import { advanceMailings } from './advance-mailings'
import { checkDomains } from './check-domain'
import { linkChecker } from './check-links'
import { clockwork } from './clockwork'
import { dataSchedules } from './data-schedules'
import type { Engine, Work } from './engine'
import { followSegments } from './follow-segments'
import { runJobs } from './jobs'
import { judgeActs } from './judge-acts'
import { feedReader } from './read-feeds'
import { readReports } from './read-reports'
import { recoverClaims } from './recover-claims'
import { runSequences } from './run-sequences'
import { sender } from './send'
import { startDueMailings } from './start-mailings'
import { keepHeapSteady } from './steady-heap'
import { tryDeliveries } from './try-deliveries'
import { watchGoals } from './watch-goals'

const settings = {
  data: required('SATCHEL_DATA'),
  url: required('SATCHEL_URL').replace(/\/+$/, ''),
  smtpUrl: process.env.SATCHEL_SMTP_URL || null,
  webProxy: process.env.SATCHEL_WEB_PROXY || null,
  nameServer: process.env.SATCHEL_DNS || null,
  sendsFrom: (process.env.SATCHEL_SENDS_FROM || '').split(/[\s,]+/).filter(Boolean),
  connections: Number(process.env.SATCHEL_SMTP_CONNECTIONS || 10),
  sign: process.env.SATCHEL_DKIM !== 'off',
}

function required(name: string): string {
  const value = process.env[name]
  if (!value) throw new Error(`The engine needs ${name}.`)
  return value
}

keepHeapSteady()
const db = openDatabase(settings.data, { durable: true })
const id = randomUUID()
const notes = engineNotes(settings.data, id)
const engine: Engine = {
  id,
  db,
  clock: clockOf(db, Date.now),
  hostClock: Date.now,
  log: pino({ name: 'engine', level: process.env.SATCHEL_LOG || 'info' }),
  settings,
  notes,
  compile: compileApart,
  stalled: false,
}
let stopping = false
for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, () => (stopping = true))

/** Calls one kind of work over and over until the engine stops; a step that throws is logged and tried again. */
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
    await wait(busy ? 0 : idle)
  }
}

const giveSign = () => beat(settings.data, engine.id, engine.hostClock())
giveSign()
const heart = setInterval(giveSign, 1_000)
engine.log.info({ id: engine.id }, 'engine runs')
const send = sender(engine)
await Promise.all([
  keepDoing('recover-claims', recoverClaims, 1_000),
  keepDoing('start-mailings', startDueMailings, 100),
  keepDoing('advance-mailings', advanceMailings, 200),
  keepDoing('run-sequences', runSequences, 200),
  keepDoing('send', send.step, 50),
  keepDoing('judge-acts', judgeActs, 150),
  keepDoing('read-reports', readReports, 300),
  keepDoing('jobs', runJobs, 200),
  keepDoing('follow-segments', followSegments, 2_000),
  keepDoing('watch-goals', watchGoals, 1_000),
  keepDoing('check-links', linkChecker(), 300),
  keepDoing('check-domain', checkDomains, 300),
  keepDoing('try-deliveries', tryDeliveries, 500),
  keepDoing('read-feeds', feedReader(), 300),
  keepDoing('data-schedules', dataSchedules, 1_000),
  keepDoing('clockwork', clockwork, 50),
])
clearInterval(heart)
await send.close()
engineStops(settings.data, engine.id)
notes.close()
closeDatabase(db)
engine.log.info({ id: engine.id }, 'engine stopped')
