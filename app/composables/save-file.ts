/** Gives something made on the page to whoever looks at it, as a file. */
export function saveFile(name: string, content: Blob) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(content)
  link.download = name
  link.click()
  // Not at once: the browser has yet to read it.
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000)
}

/** A thing's name as that of a file. */
export const fileName = (name: string, ending: string) =>
  `${name.replace(/[^\p{L}\p{N} -]/gu, '').trim() || 'satchel'}.${ending}`
