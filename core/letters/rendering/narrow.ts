import type { Block, LetterDocument, Row } from '../document'
import { BESIDE, isStacked, NARROW_SIDE } from '../geometry'
import { headingSize } from '../style'

/** The classes of what keeps the paper's sides: a part by itself, and a row of columns around them. */
export const SIDES = 'sides'
export const SIDES_AROUND = 'sides-around'

/** Narrow screens have less at the sides. */
export const narrowSides = [
  `.${SIDES} { padding-left: ${NARROW_SIDE}px !important; padding-right: ${NARROW_SIDE}px !important; }`,
  `.${SIDES_AROUND} > table > tbody > tr > td { padding-left: ${NARROW_SIDE - BESIDE}px !important; padding-right: ${NARROW_SIDE - BESIDE}px !important; }`,
]

/**
 * What differs on narrow screens, as rules of a style sheet for classes that only those parts have. Programs
 * that keep no style sheets show what holds on wide.
 */
export function narrowRules(document: LetterDocument): string[] {
  return document.rows.flatMap((row) => [
    ...rowRules(document, row),
    ...row.columns.flatMap(({ blocks }) =>
      blocks.flatMap((block) => blockRules(document, row, block)),
    ),
  ])
}

/** The class by which a row or a block is met; empty where nothing differs on narrow. */
export function narrowClass(document: LetterDocument, part: Row | Block, row?: Row): string {
  const own =
    part.style?.narrowSpace !== undefined ||
    part.style?.narrowAlign !== undefined ||
    ('narrowWidth' in part && part.narrowWidth !== undefined)
  if (own || !row) return own ? `n-${part.id}` : ''
  const block = part as Block
  const differs =
    narrowSize(document, row, block) !== undefined ||
    narrowWidth(block, row) !== undefined ||
    standsApart(block)
  return differs ? `n-${part.id}` : ''
}

/** Classes as an attribute of MJML. */
export function classes(names: string[]): string {
  const all = names.filter(Boolean).join(' ')
  return all ? ` css-class="${all}"` : ''
}

function rowRules(document: LetterDocument, row: Row): string[] {
  const name = narrowClass(document, row)
  const { narrowSpace, narrowAlign } = row.style ?? {}
  if (!name) return []
  return [
    narrowSpace === undefined
      ? ''
      : `.${name} > table > tbody > tr > td { padding-top: ${narrowSpace}px !important; padding-bottom: ${narrowSpace}px !important; }`,
    narrowAlign ? aligned(`.${name} td`, narrowAlign) : '',
  ].filter(Boolean)
}

function blockRules(document: LetterDocument, row: Row, block: Block): string[] {
  const name = narrowClass(document, block, row)
  if (!name) return []
  const { narrowSpace, narrowAlign } = block.style ?? {}
  const size = narrowSize(document, row, block)
  const rules = [
    narrowSpace === undefined
      ? ''
      : `.${name} { padding-top: ${narrowSpace}px !important; padding-bottom: ${narrowSpace}px !important; }`,
    narrowAlign ? aligned(`.${name}`, narrowAlign) : '',
    size === undefined ? '' : sized(name, block, size),
  ]
  const width = narrowWidth(block, row)
  if (width !== undefined)
    rules.push(
      `.${name} td { width: ${width}% !important; } .${name} table { width: 100% !important; }`,
    )
  if (standsApart(block))
    rules.push(
      `.${name} table td { display: block !important; width: auto !important; padding: 0 0 16px !important; } .${name} img { width: 100% !important; max-width: none !important; }`,
    )
  return rules.filter(Boolean)
}

/**
 * How wide a picture is on narrow, in per cent: as it says, or, where its column takes the whole width there, the share it
 * has of its column. One that fills its column fills the width by itself.
 */
function narrowWidth(block: Block, row: Row): number | undefined {
  if (block.kind !== 'picture') return undefined
  if (block.narrowWidth !== undefined) return block.narrowWidth
  return isStacked(row) && block.width < 100 ? block.width : undefined
}

/** Three products side by side would be too small on narrow to tell what they are. */
function standsApart(block: Block): boolean {
  return block.kind === 'picks' && block.many > 2
}

/** The size of text on narrow that is said nearest, where one is said. */
function narrowSize(document: LetterDocument, row: Row, block: Block): number | undefined {
  return block.style?.narrowSize ?? row.style?.narrowSize ?? document.style?.narrowSize
}

function sized(name: string, block: Block, size: number): string {
  if (block.style?.capitals) return ''
  const px = block.kind === 'heading' ? headingSize(size, block.level) : size
  const within = ['div', 'h1', 'h2', 'h3', 'a', 'table'].map((tag) => `.${name} ${tag}`).join(', ')
  return `${within} { font-size: ${px}px !important; }`
}

/** Text by its own property, buttons and pictures by the margins of their table. */
function aligned(at: string, align: 'left' | 'center' | 'right'): string {
  const left = align === 'left' ? '0' : 'auto'
  const right = align === 'right' ? '0' : 'auto'
  return `${at}, ${at} div { text-align: ${align} !important; } ${at} > table { margin-left: ${left} !important; margin-right: ${right} !important; }`
}
