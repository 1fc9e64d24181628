import { createWriteStream } from 'node:fs'
import { mkdir, rename, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { finished } from 'node:stream/promises'
import { setImmediate as breathe } from 'node:timers/promises'
import { ZipFile } from 'yazl'
import { dataKinds, lookOf, spanOf, type DataKind } from '../core/results'
import { daysKept } from '../core/retention'
import { startOfDay } from '../core/time'
import { readAccount } from '../database/account'
import { choiceOf, dataOutById, dataOutMade, type DataCounts, dataRows } from '../database/exports'
import { jobProgress } from '../database/jobs'
import type { Engine, JobWork } from './engine'
import { sendLetter } from './send-letter'

/** Where a file of data stands in the data folder. */
export const dataOutPath = (data: string, id: number) => join(data, 'data-out', `${id}.zip`)

/** Takes data out: one CSV for each kind, in a ZIP. An engine that goes on for another begins anew. */
export const dataOutJob: JobWork = {
  async carryOut(engine, job) {
    const { db, settings, clock } = engine
    const { dataOutId } = JSON.parse(job.payload) as { dataOutId: number }
    const out = dataOutById(db, dataOutId)
    if (!out) return true
    const path = dataOutPath(settings.data, out.id)
    await mkdir(join(settings.data, 'data-out'), { recursive: true })
    const choice = choiceOf(out)
    const { zone } = readAccount(db)!
    const query = { ...choice, ...spanOf(choice, out.created_at, (day) => startOfDay(day, zone)) }
    const counts: DataCounts = {}
    const kinds = dataKinds.map(({ key }) => key).filter((key) => choice.kinds.includes(key))
    const zip = new ZipFile()
    const file = createWriteStream(`${path}.part`)
    let cancelled = false

    async function* csvOf(kind: DataKind, no: number) {
      counts[kind] = 0
      for (const { csv, rows } of dataRows(db, kind, query, lookOf(choice))) {
        counts[kind] += rows
        yield Buffer.from(csv)
        // Others have their turn, and the user may have asked to stop.
        await breathe()
        cancelled ||= jobProgress(db, job.id, no, kinds.length).cancel
        if (cancelled) return
      }
    }
    for (const [no, kind] of kinds.entries())
      zip.addReadStreamLazy(`${kind}.csv`, { compressionLevel: 1 }, (take) =>
        take(null, Readable.from(csvOf(kind, no), { objectMode: false })),
      )
    zip.end()
    const failed = new Promise<never>((_, reject) => zip.on('error', reject))
    try {
      await Promise.race([finished(zip.outputStream.pipe(file)), failed])
      if (cancelled) return true
      await rename(`${path}.part`, path)
    } finally {
      file.destroy()
      await rm(`${path}.part`, { force: true })
    }
    if (!dataOutById(db, out.id)) {
      // It was taken away in the very end.
      await rm(path)
      return true
    }
    const { size } = await stat(path)
    dataOutMade(db, out.id, counts, size, clock())
    jobProgress(db, job.id, kinds.length, kinds.length)
    if (out.mail_to) await tellOfFile(engine, out.mail_to, out.key, counts)
    return false
  },
}

async function tellOfFile(engine: Engine, to: string, key: string, counts: DataCounts) {
  const url = `${engine.settings.url}/data/${key}`
  const lines = dataKinds.flatMap(({ key: kind, name }) =>
    counts[kind] === undefined ? [] : [`${name}: ${counts[kind]}`],
  )
  const text = `The data you asked for is ready:\n${url}\n\n${lines.join('\n')}\n\nThe link works for ${daysKept('exports')} days.\n`
  const html = `<p>The data you asked for is ready: <a href="${url}">take the file</a>.</p><p>${lines.join('<br>')}</p><p>The link works for 30 days.</p>`
  await sendLetter(engine, [to], { subject: 'Your data from Satchel', html, text })
}
