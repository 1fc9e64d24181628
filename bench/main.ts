import { importMillion, imports } from './import'
import { browsing } from './browsing'
import { dataExport } from './export'
import { measure, type Result } from './harness'
import { merges, rendition, renders } from './letters'
import { opens } from './open'
import { publicPages } from './public'
import { peopleTable } from './people-table'
import { segmentCount, segmentLines, segmentPerson } from './segments'
import { reports } from './reports'
import { hostedPage, hostedPaint } from './hosted-page'
import { embedded, signUps } from './sign-up'
import { rehearsals } from './rehearsal'
import { sequenceDates, sequencePage, sequenceStart, sequenceSteps } from './sequences'
import { startingPoints } from './starting-points'
import { resultsPage } from './results'
import { sendMemory, sends, signedSends } from './send'
import { typing } from './typing'
import { audienceSteps } from './waterfall'

/** Measures what is promised: npm run bench [-- NAME]. The last line is one JSON object of all results. */
const measures = [
  imports,
  importMillion,
  sends,
  signedSends,
  sendMemory,
  opens,
  segmentCount,
  segmentLines,
  segmentPerson,
  startingPoints,
  peopleTable,
  merges,
  renders,
  rendition,
  typing,
  dataExport,
  resultsPage,
  reports,
  audienceSteps,
  browsing,
  publicPages,
  signUps,
  embedded,
  hostedPage,
  hostedPaint,
  rehearsals,
  sequenceSteps,
  sequenceStart,
  sequencePage,
  sequenceDates,
]
const wanted = process.argv[2]
const chosen = measures.filter(({ name }) => !wanted || name === wanted)
if (chosen.length === 0) {
  console.error(
    `There is no measure called ${wanted}. There are: ${measures.map(({ name }) => name).join(', ')}.`,
  )
  process.exit(1)
}
const results: Record<string, Omit<Result, 'kept' | 'notes'>> = {}
for (const one of chosen) {
  console.log(`${one.name}:`)
  const { kept, notes, ...result } = await measure(one)
  const { atMost, atLeast } = one.promise
  const promise = atMost !== undefined ? `at most ${atMost}` : `at least ${atLeast}`
  console.log(
    `  median: ours ${result.ours}, reference ${result.reference} ${result.unit}; ratio ${result.ratio}, promised ${promise}: ${kept ? 'kept' : 'NOT kept'}${Object.keys(notes).length ? `; worst ${JSON.stringify(notes)}` : ''}`,
  )
  results[one.name] = result
}
console.log(JSON.stringify(results))
