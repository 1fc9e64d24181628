import { useEventListener, useResizeObserver } from '@vueuse/core'

/** Browsers draw nothing that is higher than some 33 million px; rows that would be are scrolled faster instead. */
const HIGHEST = 20_000_000
/** Rows drawn beyond what is seen, each way. */
const BEYOND = 12

/** Which rows are seen, and how high all of them are as far as the scroll bar is concerned. */
export interface LongRows {
  height: number
  rows: { index: number; top: number }[]
}

/**
 * The rows of a table that are seen, of however many: the last of a million is reached as the first is. Where they are
 * higher than a browser can draw, a pixel of the scroll bar is more than one of the rows; what is seen lies as ever.
 */
export function longRows(
  scrollTop: number,
  viewport: number,
  total: number,
  rowHeight: number,
): LongRows {
  const whole = total * rowHeight
  const height = Math.min(whole, HIGHEST)
  const room = Math.max(0, height - viewport)
  const top = Math.min(Math.max(0, scrollTop), room)
  /** How far the rows themselves are scrolled. */
  const offset = room > 0 ? (top / room) * (whole - viewport) : 0
  const first = Math.max(0, Math.floor(offset / rowHeight) - BEYOND)
  const end = Math.min(total, Math.ceil((offset + viewport) / rowHeight) + BEYOND)
  const rows = []
  for (let index = first; index < end; index++)
    rows.push({ index, top: index * rowHeight - offset + top })
  return { height, rows }
}

/** {@link longRows} of an element that scrolls. */
export function useLongRows(
  scroller: Ref<HTMLElement | null>,
  total: () => number,
  rowHeight: number,
) {
  const seen = ref({ top: 0, height: 0 })
  const look = () => {
    if (scroller.value)
      seen.value = { top: scroller.value.scrollTop, height: scroller.value.clientHeight }
  }
  useEventListener(scroller, 'scroll', look, { passive: true })
  useResizeObserver(scroller, look)
  return {
    of: computed(() => longRows(seen.value.top, seen.value.height, total(), rowHeight)),
    toTop: () => {
      if (scroller.value) scroller.value.scrollTop = 0
    },
  }
}
