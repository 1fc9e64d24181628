import { blocksOf, type LetterDocument, type Picks } from '../document'
import type { FillInContext } from '../fill-ins'
import type { InheritedStyle } from '../style'
import type { CompiledFill } from './compile'
import { escapeHtml } from './escape'
import type { Rendering } from './frame'

/** A product as it stands in one reader's letter. */
export interface PickedProduct {
  name: string
  price: string
  picture: string
  url: string
  /** Its number among the mailing's links. */
  link: number
}

/** The blocks of a letter that hold products picked for each reader. */
export function picksIn(document: LetterDocument): Picks[] {
  return blocksOf(document).filter((block): block is Picks => block.kind === 'picks')
}

/** What readers get: for each block of picked products, which, by the block's id and place. */
export function picksContext(
  picked: ReadonlyMap<string, readonly PickedProduct[]>,
): Record<string, PickedProduct> {
  return Object.fromEntries(
    [...picked].flatMap(([blockId, products]) =>
      products.map((product, i) => [`${blockId} ${i}`, product]),
    ),
  )
}

/** A fill-in that says something of a picked product; null where the expression is another. */
export function pickFill(expression: string): CompiledFill | null {
  const parts = /^picks ([\w-]+ \d+) (name|price|picture|url)$/.exec(expression)
  if (!parts) return null
  const [, place, what] = parts as unknown as [string, string, 'name' | 'price' | 'picture' | 'url']
  const of = (context: FillInContext) => context.picks?.[place] as PickedProduct | undefined
  return {
    expression,
    value: (context) => of(context)?.[what] ?? '',
    ...(what === 'url' ? { link: (context: FillInContext) => of(context)?.link } : {}),
  }
}

/** The products side by side: picture, name, price and a link, as rows of a table. */
export function picksTable(
  block: Picks,
  rendering: Rendering,
  width: number,
  { accent, corner }: InheritedStyle,
): string {
  const gap = 12
  const each = Math.floor((width - gap * (block.many - 1)) / block.many)
  const cells = Array.from({ length: block.many }, (_, i) => {
    const say = (what: string) => rendering.fill(`picks ${block.id} ${i} ${what}`)
    const href = rendering.ownLink(`picks ${block.id} ${i} url`)
    const right = i === block.many - 1 ? 0 : gap
    return `<td width="${each}" style="padding:0 ${right}px 0 0;vertical-align:top;width:${each}px"><a href="${href}" style="text-decoration:none"><img src="${say('picture')}" alt="${say('name')}" width="${each}" style="display:block;width:100%;max-width:${each}px;height:auto;border:0;border-radius:${corner}px"></a><p style="margin:6px 0 0;font-weight:700">${say('name')}</p><p style="margin:0 0 4px">${say('price')}</p><p style="margin:0"><a href="${href}" style="color:${accent};display:inline-block;padding:11px 0">${escapeHtml(block.label)}</a></p></td>`
  })
  return `<tr>${cells.join('')}</tr>`
}

/** The same in plain text: a line for each, and where it leads. */
export function picksText(block: Picks, rendering: Rendering): string {
  return Array.from({ length: block.many }, (_, i) => {
    const say = (what: string) => rendering.fill(`picks ${block.id} ${i} ${what}`)
    return `${say('name')}, ${say('price')}\n${rendering.ownLink(`picks ${block.id} ${i} url`)}`
  }).join('\n\n')
}
