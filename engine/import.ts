import { createReadStream } from 'node:fs'
import { setImmediate as breathe } from 'node:timers/promises'
import {
  addressCautions,
  interpretRow,
  isFilled,
  rowReader,
  type ColumnPlan,
  type FieldKind,
} from '../core/people'
import {
  importCounter,
  type UnderstoodRow,
  importWriter,
  endImport,
  importById,
  updateImport,
  type Import,
  undoSomeOfImport,
  undoMade,
  forgetNotices,
  rememberMade,
  rowsLeftOut,
  type Undone,
} from '../database/imports'
import type { Database } from '../database'
import { erasedAsker, domainCounts, addField, readFields } from '../database/people'
import { jobProgress, type Job } from '../database/jobs'
import { domainsWithMail } from './domains-with-mail'
import type { Engine, JobWork } from './engine'

/** Rows written in one transaction: so many that the disk is not waited for often. */
const BATCH = 2_500

const ERASED = 'Somebody with this address was erased at their wish, and is not taken in again.'

/** Each kind of job about an import. One that fails leaves its import failed. */
export const importJobs: Record<'import' | 'preview-import' | 'undo-import', JobWork> = {
  import: ofImport(async (engine, of, jobId) => {
    updateImport(engine.db, of.id, { state: 'running' })
    if (of.rows === 0) forgetNotices(engine.db, of.id)
    const cancelled = await importRows(engine, of, jobId)
    endImport(engine.db, of.id, cancelled ? 'cancelled' : 'done', engine.clock())
    return cancelled
  }),

  /** Counts what the import would do, and writes nothing but the counts. */
  'preview-import': ofImport(async (engine, of, jobId) => {
    const { db, clock } = engine
    // One that was interrupted begins anew.
    forgetNotices(db, of.id)
    const counter = importCounter(db, of)
    const cancelled = await eachBatch(engine, of, jobId, (batch) => counter.take(batch))
    const { counts } = counter
    updateImport(db, of.id, {
      state: cancelled ? 'cancelled' : 'counted',
      preview: JSON.stringify({ counts, sequences: counter.sequences() }),
      finished_at: cancelled ? clock() : null,
    })
    return cancelled
  }),

  'undo-import': ofImport(async ({ db, clock }, of) => {
    const undone: Undone = JSON.parse(of.undone ?? '{"removed":0,"kept":0,"putBack":0}')
    while (undoSomeOfImport(db, of, undone, clock())) {
      updateImport(db, of.id, { undone: JSON.stringify(undone) })
      await breathe()
    }
    const made = undoMade(db, of)
    updateImport(db, of.id, { state: 'undone', undone: JSON.stringify({ ...undone, made }) })
    return false
  }),
}

function ofImport(work: (engine: Engine, of: Import, jobId: number) => Promise<boolean>): JobWork {
  const importOf = (job: Job) => (JSON.parse(job.payload) as { importId: number }).importId
  return {
    carryOut(engine, job) {
      const of = importById(engine.db, importOf(job))
      if (!of) throw new Error('The import is gone.')
      return work(engine, of, job.id)
    },
    failed: ({ db, clock }, job) => endImport(db, importOf(job), 'failed', clock()),
  }
}

/** Writes the rows of a file in batches, behind those already written. Whether it was cancelled. */
function importRows(engine: Engine, of: Import, jobId: number): Promise<boolean> {
  const { db, clock } = engine
  const known = new Set(readFields(db).map(({ key }) => key))
  for (const { target } of JSON.parse(of.plans) as ColumnPlan[]) {
    if (target.to !== 'new-field' || known.has(target.key)) continue
    addField(db, target)
    rememberMade(db, of.id, 'field', target.key)
  }
  const leftOut = rowsLeftOut(db, of.id)
  const writer = importWriter(db, of)
  let counted = 0
  return eachBatch(
    engine,
    of,
    jobId,
    (batch) =>
      writer.write(
        batch.map((item) =>
          leftOut.has(item.row) ? { row: item.row, leftOut: true, cells: item.cells } : item,
        ),
        clock(),
      ),
    (normal) => {
      if (++counted > of.rows) return false
      if (normal !== null) writer.meet(normal)
      return true
    },
  )
}

/**
 * Reads the file in pieces, understands its rows and hands them on in batches, with progress. `skip`
 * says of each row, by its address, whether it was taken before. Whether it was cancelled.
 */
async function eachBatch(
  engine: Engine,
  of: Import,
  jobId: number,
  take: (batch: UnderstoodRow[]) => void,
  skip: (normal: string | null) => boolean = () => false,
): Promise<boolean> {
  const { db } = engine
  const plans = JSON.parse(of.plans) as ColumnPlan[]
  const kinds = new Map<string, FieldKind>(readFields(db).map((field) => [field.key, field.kind]))
  for (const { target } of plans) if (target.to === 'new-field') kinds.set(target.key, target.kind)
  const domains = domainsKnown(db)
  const mailDomains = domainsWithMail(engine)
  const wasErased = erasedAsker(db)
  const options = { clearEmpty: of.clear_empty === 1 }
  let batch: UnderstoodRow[] = []
  for await (const { cells, row, bytes } of fileRows(of)) {
    let outcome = interpretRow(cells, plans, kinds, options)
    if (outcome.ok && wasErased(outcome.entry.normal)) outcome = { ok: false, reason: ERASED }
    if (skip(outcome.ok ? outcome.entry.normal : null)) continue
    if (outcome.ok) {
      outcome.entry.cautions.push(...addressCautions(outcome.entry.normal, domains.known))
      domains.count(outcome.entry.domain)
    }
    batch.push(
      outcome.ok ? { row, entry: outcome.entry, cells } : { row, refused: outcome.reason, cells },
    )
    if (batch.length < BATCH) continue
    await mailDomains.caution(batch)
    take(batch)
    batch = []
    if (jobProgress(db, jobId, bytes, of.size).cancel) return true
    await breathe()
  }
  await mailDomains.caution(batch)
  take(batch)
  jobProgress(db, jobId, of.size, of.size)
  return false
}

/** Domains that many have, against which a slip of the hand shows: those on file, and those of this file so far. */
function domainsKnown(db: Database) {
  const MANY = 20
  const counts = domainCounts(db)
  const known = new Set([...counts].filter(([, n]) => n >= MANY).map(([domain]) => domain))
  return {
    known,
    count(domain: string) {
      const n = (counts.get(domain) ?? 0) + 1
      counts.set(domain, n)
      if (n === MANY) known.add(domain)
    },
  }
}

/** The rows of a file about people, blank ones left out, each with its place as a spreadsheet counts. */
async function* fileRows(
  of: Import,
): AsyncGenerator<{ cells: string[]; row: number; bytes: number }> {
  const decoder = new TextDecoder(of.encoding)
  const reader = rowReader(of.delimiter)
  let bytes = 0
  let row = 0
  const ofPeople = (cells: string[]) => ++row >= of.first_row && isFilled(cells)
  for await (const chunk of createReadStream(of.path, { highWaterMark: 256 * 1024 })) {
    bytes += (chunk as Buffer).length
    for (const cells of reader.push(decoder.decode(chunk as Buffer, { stream: true })))
      if (ofPeople(cells)) yield { cells, row, bytes }
  }
  for (const cells of reader.end(decoder.decode())) if (ofPeople(cells)) yield { cells, row, bytes }
}
