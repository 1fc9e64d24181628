import type { Present } from '~~/core/team'

/** How often one says that one is still there, ms. */
const AGAIN = 5_000

/**
 * Who else has the open letter open, and in which block. The block one chooses is held for oneself; one that
 * somebody else is in can be looked at, not written in.
 */
export const usePresence = defineStore('presence', () => {
  const others = shallowRef<Present[]>([])
  /** Chosen here, but somebody else was in it first. */
  const refused = ref<string | null>(null)
  const tab = Math.random().toString(36).slice(2, 14)
  let timer: ReturnType<typeof setInterval> | undefined
  let at: number | null = null

  async function say(blockId: string | null) {
    const mailing = at
    if (mailing === null) return
    const answer = await tell<{ others: Present[]; held: boolean }>(
      `/api/mailings/${mailing}/presence`,
      { tab, blockId },
    )
    if (!answer || at !== mailing) return
    others.value = answer.others
    refused.value = answer.held ? null : blockId
  }

  function begin(mailingId: number, block: () => string | null) {
    end()
    at = mailingId
    void say(block())
    timer = setInterval(() => void say(block()), AGAIN)
  }

  function end() {
    clearInterval(timer)
    others.value = []
    refused.value = null
    if (at === null) return
    void tell(`/api/mailings/${at}/presence`, { tab, leaves: true })
    at = null
  }

  /** Who is in a block, if it is not oneself. */
  const whoIsIn = (blockId: string) => others.value.find((one) => one.blockId === blockId)?.name

  return { others, refused, say, begin, end, whoIsIn }
})
