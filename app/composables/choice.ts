import type { Ref } from 'vue'
import { blocksOf, findBlock, rowOfBlock, type Block, type Letter, type Row } from '~~/core/letters'

/** Which blocks of a letter are chosen: one, and others besides, by Shift or Ctrl. */
export function useChoice(letter: Ref<Letter | null>) {
  const chosen = ref<string | null>(null)
  const also = ref<string[]>([])
  const chosenBlock = computed(() =>
    letter.value && chosen.value ? (findBlock(letter.value.document, chosen.value) ?? null) : null,
  )

  const chosenRow = computed(() =>
    letter.value && chosen.value ? (rowOfBlock(letter.value.document, chosen.value) ?? null) : null,
  )

  // As they were while only words change: what shows the rest of them is not drawn again at every key.
  const settledBlock = computed<Block | null>((before) =>
    settled(before, chosenBlock.value, ['text']),
  )
  const settledRow = computed<Row | null>((before) => {
    const now = chosenRow.value
    const parts = ({ columns }: Row) =>
      columns.map(({ share, blocks }) => [share, ...blocks.map(({ id }) => id)].join()).join(';')
    if (!before || !now || parts(before) !== parts(now)) return now
    return settled(before, now, ['columns'])
  })

  watch(chosen, () => (also.value = []), { flush: 'sync' })

  /** Chooses a block: alone, besides those chosen, or with all between. */
  function choose(id: string, how: 'alone' | 'besides' | 'between' = 'alone') {
    const first = chosen.value
    if (how === 'alone' || !first || !letter.value) {
      // What is chosen together stays so while one goes on with it.
      if (first === id && how === 'alone' && !also.value.length) return
      chosen.value = id
      also.value = []
    } else if (how === 'between') {
      const ids = blocksOf(letter.value.document).map((block) => block.id)
      const [from, to] = [ids.indexOf(first), ids.indexOf(id)].sort((a, b) => a - b)
      also.value = ids.slice(from, to! + 1).filter((one) => one !== first)
    } else if (id !== first)
      also.value = also.value.includes(id)
        ? also.value.filter((one) => one !== id)
        : [...also.value, id]
  }

  const all = computed(() => (chosen.value ? [chosen.value, ...also.value] : []))
  return { chosen, also, all, chosenBlock, chosenRow, settledBlock, settledRow, choose }
}

/** `before`, where `now` differs from it at most in these properties; else `now`. */
function settled<T extends object>(
  before: T | null | undefined,
  now: T | null,
  but: string[],
): T | null {
  if (!before || !now) return now
  const keys = new Set([...Object.keys(before), ...Object.keys(now)])
  const differs = [...keys].some(
    (key) => !but.includes(key) && before[key as keyof T] !== now[key as keyof T],
  )
  return differs ? now : before
}
