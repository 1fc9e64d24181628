import { blocksOf, isEmptyText, plainInline } from '../../letters'
import type { Mark, ProofFacts } from '../mark'

const filler =
  /\b(lorem ipsum|dolor sit amet|text goes here|your text|insert [a-z ]{1,20} here|tbd|tbc|xxx+)\b|\[[A-Z][^\]]{1,40}\]|What this letter is about|Say the one thing that matters first\./gi

/** Words that were meant to be replaced, and blocks that were begun and left empty. */
export function fillerText({ letter }: ProofFacts): Mark[] {
  const marks: Mark[] = []
  const look = (text: string, blockId: string | null, where: string) => {
    const found = [...new Set([...text.matchAll(filler)].map(([words]) => words))]
    if (found.length === 0) return
    const places = found.map((words) => `“${words}”`).join(', ')
    marks.push({
      check: 'filler-text',
      level: 'blocker',
      blockId,
      title: `Filler text left in the ${where}`,
      detail: `${places} ${found.length === 1 ? 'was' : 'were'} meant to be replaced.`,
    })
  }
  look(letter.subject, null, 'subject')
  look(letter.previewText, null, 'preview text')
  for (const block of blocksOf(letter.document)) {
    if (block.kind === 'button') look(block.label, block.id, 'button')
    if (block.kind === 'picture' || block.kind === 'film') {
      look(block.alt, block.id, block.kind)
      if (block.src === '') marks.push(empty(block.id, block.kind))
    }
    if (block.kind === 'product')
      look([block.name, block.about, block.price].join(' '), block.id, 'product')
    if (block.kind === 'table') look(block.cells.flat().join(' '), block.id, 'table')
    if (block.kind === 'social')
      look(block.links.map(({ name }) => name).join(' '), block.id, 'links elsewhere')
    if ('text' in block && block.kind !== 'footer') {
      const by = block.kind === 'quote' ? ` ${block.by}` : ''
      if (isEmptyText(block.text)) marks.push(empty(block.id, block.kind))
      else look(`${plainInline(block.text)}${by}`, block.id, block.kind)
    }
  }
  return marks
}

function empty(blockId: string, what: string): Mark {
  return {
    check: 'filler-text',
    level: 'caution',
    blockId,
    title: `An empty ${what}`,
    detail: 'Fill it or remove it; readers see a gap.',
    repairs: [{ words: 'Remove it', change: { is: 'remove' } }],
  }
}
