import { previewBytes, understandFile, type KnownPeople } from '~~/core/people'

/** Understands a chosen file off the page's own thread: only its beginning is read, however large it is. */
self.onmessage = async (message: MessageEvent<{ file: File; known: KnownPeople }>) => {
  const { file, known } = message.data
  const head = new Uint8Array(await file.slice(0, previewBytes).arrayBuffer())
  self.postMessage(understandFile(head, file.size, known))
}
