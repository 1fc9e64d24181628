import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import pino from 'pino'
import { readInbound } from '../core/inbound'
import { readFeed } from '../core/letters'
import { compileLetter } from '../core/letters/rendering'
import type { Database } from '../database'
import type { Engine, EngineSettings } from './engine'

/** An engine on a database, with a clock that the test sets and without a word in the log. */
export function madeUpEngine(
  db: Database,
  settings: Partial<EngineSettings> = {},
): Engine & { time: { now: number } } {
  const time = { now: Date.UTC(2026, 10, 23, 9, 40) }
  return {
    id: 'engine-1',
    db,
    time,
    clock: () => time.now,
    hostClock: () => time.now,
    log: pino({ level: 'silent' }),
    settings: {
      data: mkdtempSync(join(tmpdir(), 'satchel-engine-')),
      url: 'https://mail.galewright.example',
      smtpUrl: null,
      webProxy: null,
      mayReach: ['127.0.0.1'],
      nameServer: null,
      sendsFrom: [],
      connections: 4,
      sign: false,
      ...settings,
    },
    notes: { begin() {}, over() {} },
    compile: compileLetter,
    readFeed: (text, url) => Promise.resolve(readFeed(text, url)),
    readReport: readInbound,
    stalled: false,
    jumping: false,
  }
}
