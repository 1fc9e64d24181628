import type { Slot } from '../../delivery'

/** Private-use characters around a slot's name. Cleaned documents hold none of their own. */
const open = '\uE000'
const close = '\uE001'

/** Text that stands for a slot while a letter goes through MJML. */
export const slotMark = {
  fill: (n: number) => `${open}f${n}${close}`,
  link: (n: number) => `${open}l${n}${close}`,
  /** A link of the reader's own, said by fill-in `n`. */
  own: (n: number) => `${open}p${n}${close}`,
  leave: `${open}u${close}`,
  yourPage: `${open}y${close}`,
  opened: `${open}o${close}`,
  /** What stands up to the next end is for those for whom condition `n` holds. */
  begin: (n: number) => `${open}b${n}${close}`,
  end: `${open}e${close}`,
}

/** Cuts text at its marks; what stands between a beginning and its end is one slot. */
export function cutAtSlots(text: string): (string | Slot)[] {
  const whole: (string | Slot)[] = []
  const around = [whole]
  for (const piece of text.split(/(\uE000[flpouybe]\d*\uE001)/)) {
    if (piece === '') continue
    const into = around.at(-1)!
    const mark = /^\uE000([flpouybe])(\d*)\uE001$/.exec(piece)
    if (!mark) into.push(piece)
    else if (mark[1] === 'b') {
      const pieces: (string | Slot)[] = []
      into.push({ when: Number(mark[2]), pieces })
      around.push(pieces)
    } else if (mark[1] === 'e') around.pop()
    else into.push(simpleSlot(mark[1]!, Number(mark[2])))
  }
  return whole
}

function simpleSlot(kind: string, n: number): Slot {
  switch (kind) {
    case 'f':
      return { fill: n }
    case 'l':
      return { link: n }
    case 'p':
      return { own: n }
    case 'u':
      return { leave: true }
    case 'y':
      return { yourPage: true }
    default:
      return { open: true }
  }
}
