import { fork, type ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { processFile } from '../cases/apart'
import { jobsDied } from '../database/jobs'
import type { Engine } from './engine'

/** What the process may hold, MB: a file of a million people is read in pieces and takes a tenth of it. */
const MEMORY = 1_024

/** Before one that ended is begun again, ms. */
const PAUSE = 500

/**
 * Keeps a process that carries jobs out beside this one, so that nothing a file holds keeps a mail waiting or ends the
 * engine. Where it ends at a job, the job is begun again by the next, and fails when that has happened twice.
 */
export function jobsApart({ db, log }: Pick<Engine, 'db' | 'log'>) {
  let child: ChildProcess | null = null
  let stopping = false
  let over = () => {}
  const stopped = new Promise<void>((done) => (over = done))

  function start() {
    // Named here, so that its death counts however soon it comes.
    const id = `jobs-${randomUUID()}`
    const started = fork(processFile('jobs'), {
      env: { ...process.env, SATCHEL_ENGINE_ID: id },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
      execArgv: [`--max-old-space-size=${MEMORY}`, '--enable-source-maps'],
    })
    child = started
    started.on('error', () => {})
    started.on('exit', (code) => {
      if (stopping) return over()
      log.error({ code }, 'the process for jobs ended; it is started again')
      if (code !== 0) jobsDied(db, id)
      setTimeout(() => stopping || start(), PAUSE)
    })
  }
  start()

  return {
    /** Lets it finish its step and end. */
    stop() {
      stopping = true
      if (child && child.exitCode === null && child.signalCode === null) child.kill('SIGTERM')
      else over()
    },
    stopped,
  }
}
