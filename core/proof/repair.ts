import { blocksOf, insertRow, newBlock, removeBlock, type Block, type Letter } from '../letters'

/** What one click does about a mark. */
export interface Repair {
  /** What the button says. */
  words: string
  change: RepairChange
}

export type RepairChange =
  /** In the mark's block, or in subject and preview text where it has none. `part`: as a part of a word, too. */
  | { is: 'text'; from: string; to: string; part?: boolean }
  | { is: 'link'; from: string; to: string }
  /** A fill-in's expression. */
  | { is: 'fill-in'; from: string; to: string }
  | { is: 'remove' }
  | { is: 'footer' }
  /** Not in the letter: the account takes a word as its own. */
  | { is: 'own-word'; word: string }

/** The letter after a repair; as it was where what it is about is not there any more. `newId`: of a block that is made. */
export function repaired(
  letter: Letter,
  { blockId }: { blockId: string | null },
  change: RepairChange,
  newId: () => string,
): Letter {
  switch (change.is) {
    case 'own-word':
      return letter
    case 'footer': {
      const { document } = letter
      const footer = newBlock('footer', newId())
      return { ...letter, document: insertRow(document, document.rows.length, footer) }
    }
    case 'remove':
      return blockId ? { ...letter, document: removeBlock(letter.document, blockId) } : letter
    case 'text': {
      const once = onceIn(change)
      if (blockId) return withBlock(letter, blockId, once)
      const subject = once(letter.subject)
      return subject === letter.subject
        ? { ...letter, previewText: once(letter.previewText) }
        : { ...letter, subject }
    }
    case 'link':
      return withBlock(letter, blockId, (text) => (text === change.from ? change.to : text))
    case 'fill-in': {
      const { from, to } = change
      if (blockId)
        return withBlock(letter, blockId, (text, key) =>
          key === 'expression' && text === from ? to : text,
        )
      const filled = (text: string) =>
        text.replace(/\{\{\s*([^{}]*?)\s*\}\}/g, (whole, expression: string) =>
          expression === from ? `{{ ${to} }}` : whole,
        )
      return {
        ...letter,
        subject: filled(letter.subject),
        previewText: filled(letter.previewText),
      }
    }
  }
}

/** Replaces what is found first, over all the texts it is asked for. */
function onceIn({ from, to, part = false }: { from: string; to: string; part?: boolean }) {
  const plain = from.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/['’]/g, "['’]")
  const found = new RegExp(part ? plain : `(?<![\\p{L}\\p{N}])${plain}(?![\\p{L}\\p{N}])`, 'u')
  let done = false
  return (text: string, key = '') => {
    if (done || key === 'expression' || !found.test(text)) return text
    done = true
    return text.replace(found, () => to)
  }
}

/** Keys of a block's document whose texts are no words and no addresses. */
const never = new Set(['id', 'kind', 'type', 'src', 'html', 'style', 'narrow', 'shownTo'])

function withBlock(
  letter: Letter,
  blockId: string | null,
  change: (text: string, key: string) => string,
): Letter {
  const block = blocksOf(letter.document).find(({ id }) => id === blockId)
  if (!block) return letter
  const changed = (value: unknown, at = ''): unknown => {
    if (typeof value === 'string') return change(value, at)
    if (Array.isArray(value)) {
      const next = value.map((one) => changed(one, at))
      return next.some((one, i) => one !== value[i]) ? next : value
    }
    if (typeof value !== 'object' || value === null) return value
    const next = Object.entries(value).map(
      ([key, one]) => [key, never.has(key) ? one : changed(one, key)] as const,
    )
    const same = next.every(([key, one]) => one === (value as Record<string, unknown>)[key])
    return same ? value : Object.fromEntries(next)
  }
  const next = changed(block) as Block
  if (next === block) return letter
  const rows = letter.document.rows.map((row) => ({
    ...row,
    columns: row.columns.map((column) => ({
      ...column,
      blocks: column.blocks.map((one) => (one === block ? next : one)),
    })),
  }))
  return { ...letter, document: { ...letter.document, rows } }
}
