import {
  closeSync,
  mkdirSync,
  openSync,
  readFileSync,
  readdirSync,
  rmSync,
  writeSync,
} from 'node:fs'
import { join } from 'node:path'

/** At what an engine works that might end it: a mailing, and of it the letter or one person's message. */
export interface WorkingAt {
  mailing: number
  /** `letter`, or the number of the person. */
  what: string
}

/** Characters of a note; each is written over the one before. */
const LENGTH = 48

/**
 * What an engine is just about to make, in a file of its own: a note costs a few microseconds, and the file system has it
 * when the process dies the next moment. What is lost with the power says nothing about the engine's death anyway.
 */
export function engineNotes(data: string, engine: string) {
  const file = openSync(join(folderOf(data), engine), 'w')
  const nothing = Buffer.alloc(LENGTH, ' ')
  let noted = false
  return {
    begin(at: WorkingAt) {
      noted = true
      writeSync(file, Buffer.from(`${at.mailing} ${at.what}`.padEnd(LENGTH)), 0, LENGTH, 0)
    },
    over() {
      if (noted) writeSync(file, nothing, 0, LENGTH, 0)
      noted = false
    },
    close() {
      closeSync(file)
      rmSync(join(folderOf(data), engine), { force: true })
    },
  }
}

/**
 * At what engines died that are not among the living; asking forgets it. Where two engines ask at the same time, one of
 * them is told.
 */
export function takeDeaths(data: string, living: readonly string[]): WorkingAt[] {
  return readdirSync(folderOf(data))
    .filter((engine) => !living.includes(engine))
    .flatMap((engine) => {
      const note = take(join(folderOf(data), engine))
      const [, mailing, what] = /^(\d+) (\w+)\s*$/.exec(note) ?? []
      return mailing ? [{ mailing: Number(mailing), what: what! }] : []
    })
}

function take(path: string): string {
  try {
    const note = readFileSync(path, 'latin1')
    rmSync(path)
    return note
  } catch {
    // The engine itself or another one has taken it away meanwhile.
    return ''
  }
}

function folderOf(data: string): string {
  const folder = join(data, 'working-at')
  mkdirSync(folder, { recursive: true })
  return folder
}
