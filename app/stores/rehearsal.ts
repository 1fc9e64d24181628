import type { Audience, Rehearsal } from '~~/core/rehearsal'
import {
  askedByWaits,
  happeningsOf,
  mailingsOfMap,
  rulesOf,
  type SequenceMap,
} from '~~/core/sequences'
import RehearseWorker from '~/workers/rehearse.worker?worker'
import type { RehearsalAnswer, RehearsalAsked } from '~/workers/rehearse.worker'

/** Whom the server drew, the version that stands beside the map, and the time from which all are followed. */
interface Drawn {
  audience: Audience
  beside: { version: number; map: SequenceMap } | null
  now: number
}

/**
 * The rehearsal of the sequence that is open: people are drawn when it is looked at, and whenever the map asks something else
 * of them; and it is done anew whenever the map changes, in a worker.
 */
export const useRehearsal = defineStore('rehearsal', () => {
  const isOn = ref(false)
  const seed = ref(1)
  const days = ref(60)
  const drawn = shallowRef<Drawn | null>(null)
  const rehearsal = shallowRef<Rehearsal | null>(null)
  /** Which version stands beside the map; null: the one that ran last. */
  const version = ref<number | null>(null)
  /** Of that version, with the same people and luck; null where it is the same map, or none ran. */
  const before = shallowRef<Rehearsal | null>(null)
  const problem = ref('')
  /** Whether what is shown is of the map as it stands. */
  const isCurrent = ref(false)
  let no = 0
  let asked = 0
  /** People are being drawn anew: of those who were, not all is known that the map asks. */
  let isDrawing = false
  let worker: Worker | null = null
  const sequence = computed(() => useSequence().sequence)

  /** Whether the map is that of the version beside it. */
  const isSame = computed(() => {
    const beside = drawn.value?.beside
    return beside != null && JSON.stringify(beside.map) === JSON.stringify(sequence.value?.map)
  })
  /** Whether it is that of the version that ran last, so that what came of it can stand beside. */
  const isAsItRan = computed(
    () => isSame.value && drawn.value!.beside!.version === sequence.value?.versions[0]?.version,
  )

  /** What of a map says whom to draw, and what must be known of them; and which version stands beside. */
  const asks = computed(() => {
    const of = sequence.value
    if (!isOn.value || !of) return null
    const asked = happeningsOf(of.map)
    const events = asked.filter(({ is }) => is === 'did')
    const links = asked.filter((one) => one.is === 'clicked' && one.link)
    // Where a link is asked for, it hangs on the letters in which it may stand.
    const letters = links.length > 0 ? [links, mailingsOfMap(of.map)] : []
    const people = [of.listId, rulesOf(of.map), of.map.start.rule, events, askedByWaits(of.map)]
    return JSON.stringify([of.id, version.value, ...people, letters])
  })

  async function draw() {
    const mine = ++asked
    isDrawing = true
    no++
    problem.value = ''
    isCurrent.value = false
    const { id, map, listId } = sequence.value!
    const beside = version.value === null ? {} : { beside: version.value }
    try {
      const got = await question<Drawn>(`/api/sequences/${id}/rehearsal`, {
        map,
        listId,
        ...beside,
      })
      if (mine !== asked || id !== sequence.value?.id) return
      drawn.value = got
      isDrawing = false
      rehearse()
    } catch (error) {
      if (mine !== asked) return
      isDrawing = false
      drawn.value = null
      rehearsal.value = before.value = null
      problem.value = problemOf(error).message
    }
  }

  function rehearse() {
    const of = sequence.value
    if (!isOn.value || !drawn.value || !of || isDrawing) return
    isCurrent.value = false
    const { audience, beside, now } = drawn.value
    const rehearsing = { seed: seed.value, days: days.value, from: now }
    if (!worker) {
      worker = new RehearseWorker()
      worker.onmessage = (message: MessageEvent<RehearsalAnswer>) => {
        // An answer about a map that was changed since comes too late.
        if (message.data.no !== no) return
        rehearsal.value = message.data.rehearsal
        before.value = message.data.against
        isCurrent.value = true
      }
      worker.onerror = () => {
        problem.value = 'The rehearsal broke off. Draw again.'
      }
    }
    const ask = {
      no: ++no,
      map: of.map,
      against: isSame.value ? null : (beside?.map ?? null),
      audience,
      rehearsing,
    }
    worker.postMessage(JSON.parse(JSON.stringify(ask)) satisfies RehearsalAsked)
  }

  watch(asks, (now) => now !== null && void draw())
  watch([() => JSON.stringify(sequence.value?.map), seed, days], rehearse)
  watch(
    () => sequence.value?.id,
    () => {
      drawn.value = null
      rehearsal.value = before.value = null
    },
  )

  /** Begins, or ends: nothing is reckoned while nobody looks. */
  function show(on: boolean) {
    isOn.value = on
    if (on) return
    worker?.terminate()
    worker = null
    no++
    asked++
    drawn.value = null
    rehearsal.value = before.value = null
  }

  return {
    ...{ isOn, seed, days, version, drawn, rehearsal, before, problem },
    ...{ isCurrent, isSame, isAsItRan, show, draw },
  }
})
