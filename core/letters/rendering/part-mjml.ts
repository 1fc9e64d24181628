import { escapeHtml } from './escape'
import { SIDE } from '../geometry'
import { classes, SIDES } from './narrow'
import type { Part, Type } from '../parts'

/** A part of a block as MJML. `names`: the classes of its block. */
export function partToMjml(part: Part, names: string[]): string {
  switch (part.kind) {
    case 'words':
      return `<mj-text${placed(part, names)} align="${part.align}"${type(part.type)}>${part.html}</mj-text>`
    case 'rows':
      return `<mj-table${placed(part, names)}${type(part.type)}>${part.html}</mj-table>`
    case 'picture': {
      const link = part.href ? ` href="${part.href}"` : ''
      const fluid = part.fluid ? ' fluid-on-mobile="true"' : ''
      const ends = part.lower > 0 ? [`ends-${part.room.below - part.lower}`] : []
      return `<mj-image src="${escapeHtml(part.src)}" alt="${escapeHtml(part.alt)}" width="${part.width}px" align="${part.align}" border-radius="${part.corner}px"${fluid}${border(part.border)}${placed(part, [...names, ...ends])}${link} />`
    }
    case 'button':
      return `<mj-button align="${part.align}" href="${part.href}" background-color="${part.accent ?? 'transparent'}"${part.full ? ' width="100%"' : ''}${type(part.type)} border-radius="${part.corner}px"${border(part.border)} inner-padding="${part.within.map((px) => `${px}px`).join(' ')}"${placed(part, names)}>${part.html}</mj-button>`
    case 'line':
      return `<mj-divider border-width="1px" border-color="${part.color}"${placed(part, names)} />`
    case 'gap':
      return `<mj-spacer height="${part.height}px"${classes(names)} />`
  }
}

/** Padding, ground and class, which every part may have. */
function placed({ room }: Part, names: string[]): string {
  const ground = room.ground ? ` container-background-color="${room.ground}"` : ''
  const side = room.side === SIDE ? [SIDES] : []
  return ` padding="${room.above}px ${room.side}px ${room.below}px"${ground}${classes([...names, ...side])}`
}

function type({ font, size, line, ink, weight }: Type): string {
  const bold = weight ? ` font-weight="${weight}"` : ''
  return ` color="${ink}" font-family="${escapeHtml(font)}" font-size="${size}px" line-height="${line}"${bold}`
}

const border = (line: string) => (line ? ` border="${line}"` : '')
