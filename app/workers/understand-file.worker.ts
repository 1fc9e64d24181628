import {
  fileAsCsv,
  pastedAsCsv,
  previewBytes,
  understandFile,
  type Encoding,
  type FileProblem,
  type FileUnderstanding,
  type KnownPeople,
} from '~~/core/people'

/** A file, or text that was pasted; and how it is encoded, where somebody knows better. */
export interface UnderstandingAsked {
  source: File | string
  encoding: Encoding | null
  known: KnownPeople
}

/** What was understood; `csv` is what goes on in place of a file that was no text, or of what was pasted. */
export interface UnderstandingAnswer {
  found: FileUnderstanding | FileProblem
  csv: Blob | null
}

/** Understands people off the page's own thread: only the beginning of a text is read, however large it is. */
self.onmessage = async (message: MessageEvent<UnderstandingAsked>) => {
  const { source, encoding, known } = message.data
  const turned = typeof source === 'string' ? pastedAsCsv(source) : await turn(source)
  if (turned instanceof Error) {
    const found = { problem: 'not-text', message: turned.message } satisfies FileProblem
    return self.postMessage({ found, csv: null } satisfies UnderstandingAnswer)
  }
  const csv = turned === null ? null : new Blob([turned], { type: 'text/csv' })
  const text = csv ?? (source as File)
  const head = new Uint8Array(await text.slice(0, previewBytes).arrayBuffer())
  const options = csv === null && encoding ? { encoding } : {}
  self.postMessage({
    found: understandFile(head, text.size, known, options),
    csv,
  } satisfies UnderstandingAnswer)
}

async function turn(file: File): Promise<string | null | Error> {
  try {
    return await fileAsCsv(file)
  } catch {
    return new Error(
      'This workbook can’t be read. Save it again as XLSX or CSV and choose that file.',
    )
  }
}
