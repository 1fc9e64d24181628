import type { Ref } from 'vue'
import { blocksOf, findBlock, rowOfBlock, type Letter } from '~~/core/letters'

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
  return { chosen, also, all, chosenBlock, chosenRow, choose }
}
