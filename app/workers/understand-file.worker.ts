import {
  fileAsCsv,
  pastedAsCsv,
  previewBytes,
  understandFile,
  type FileHints,
  type FileProblem,
  type FileUnderstanding,
  type KnownPeople,
} from '~~/core/people'

/** A file, text that was pasted, or the beginning of a file that was sent before. */
export type PeopleSource = File | string | { head: Blob; size: number }

/** People to understand; and what somebody who knows them better says of the file. */
export interface UnderstandingAsked {
  source: PeopleSource
  hints: FileHints
  known: KnownPeople
}

/** What was understood; `csv` is what goes on in place of a file that was no text, or of what was pasted. */
export interface UnderstandingAnswer {
  found: FileUnderstanding | FileProblem
  csv: Blob | null
}

/** Understands people off the page's own thread: only the beginning of a text is read, however large it is. */
self.onmessage = async (message: MessageEvent<UnderstandingAsked>) => {
  const { source, hints, known } = message.data
  const turned = await turn(source)
  if (turned instanceof Error) {
    const found = { problem: 'not-text', message: turned.message } satisfies FileProblem
    return self.postMessage({ found, csv: null } satisfies UnderstandingAnswer)
  }
  const csv = turned === null ? null : new Blob([turned], { type: 'text/csv' })
  const text = csv ?? (isHead(source) ? source.head : (source as File))
  const head = new Uint8Array(await text.slice(0, previewBytes).arrayBuffer())
  const size = isHead(source) ? source.size : text.size
  // What was turned into CSV here is UTF-8 and apart by commas, whatever it was before.
  const asked = csv === null ? hints : { headerRow: hints.headerRow }
  self.postMessage({
    found: understandFile(head, size, known, asked),
    csv,
  } satisfies UnderstandingAnswer)
}

const isHead = (source: PeopleSource): source is { head: Blob; size: number } =>
  typeof source === 'object' && 'head' in source

async function turn(source: PeopleSource): Promise<string | null | Error> {
  if (typeof source === 'string') return pastedAsCsv(source)
  if (isHead(source)) return null
  try {
    return await fileAsCsv(source)
  } catch {
    return new Error(
      'This workbook can’t be read. Save it again as XLSX or CSV and choose that file.',
    )
  }
}
