import type { Slot } from '../../delivery/message'

/** Private-use characters around a slot's name. Cleaned documents hold none of their own. */
const open = '\uE000'
const close = '\uE001'

/** Text that stands for a slot while a letter goes through MJML. */
export const slotMark = {
  fill: (n: number) => `${open}f${n}${close}`,
  link: (n: number) => `${open}l${n}${close}`,
  leave: `${open}u${close}`,
  opened: `${open}o${close}`,
}

/** Cuts text at its marks. */
export function cutAtSlots(text: string): (string | Slot)[] {
  return text
    .split(/(\uE000[flou]\d*\uE001)/)
    .filter((piece) => piece !== '')
    .map((piece) => {
      const mark = /^\uE000([flou])(\d*)\uE001$/.exec(piece)
      if (!mark) return piece
      if (mark[1] === 'f') return { fill: Number(mark[2]) }
      if (mark[1] === 'l') return { link: Number(mark[2]) }
      return mark[1] === 'u' ? { leave: true as const } : { open: true as const }
    })
}
