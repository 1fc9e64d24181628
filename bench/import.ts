import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { inProcess, type Measure } from './harness'

/**
 * Rows of CSV to people with fields and a list, against inserting the same rows, parsed before, with
 * better-sqlite3 in batches into the same tables.
 */
export const imports = importing('import', 200_000, 3)
export const importMillion = importing('import-million', 1_000_000, 1)

function importing(name: string, rows: number, runs: number): Measure {
  return {
    name,
    unit: 's',
    promise: { atMost: 3 },
    runs,
    async run() {
      const folder = mkdtempSync(join(tmpdir(), 'satchel-bench-'))
      writeFileSync(join(folder, 'people.csv'), csv(rows))
      const ours = await inProcess<{ seconds: number; peakMb: number }>(
        './import-ours',
        folder,
        String(rows),
      )
      const reference = await inProcess<{ seconds: number }>('./import-reference', folder)
      rmSync(folder, { recursive: true })
      return { ours: ours.seconds, reference: reference.seconds, notes: { peakMb: ours.peakMb } }
    },
  }
}

function csv(count: number): string {
  const towns = ['Sandreach', 'Hale Point', 'Gull Harbour', 'Orrin']
  const rows = ['mail,first name,last name,town,member since,flies,till no.,wants']
  for (let i = 0; i < count; i++)
    rows.push(
      `reader.number${i}@inkpost.example,Tamsin ${i % 97},"Prynne-Marsh, ${i % 89}",${towns[i % 4]},${String((i % 28) + 1).padStart(2, '0')}/0${(i % 9) + 1}/2019,${i % 3 ? 'stunt|power' : 'indoor'},${7000 + (i % 2000)},${i % 4 ? 'yes' : 'no'}`,
    )
  return `${rows.join('\n')}\n`
}
