import type { Audience, Rehearsal } from '~~/core/rehearsal'
import { askedByWaits, happeningsOf, rulesOf, type SequenceMap } from '~~/core/sequences'
import RehearseWorker from '~/workers/rehearse.worker?worker'
import type { RehearsalAnswer, RehearsalAsked } from '~/workers/rehearse.worker'

/** Whom the server drew, the version that ran last, and the time from which all are followed. */
interface Drawn {
  audience: Audience
  last: SequenceMap | null
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
  /** Of the version that ran last, with the same people and luck; null where it is the same map, or none ran. */
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

  /** Whether the map is that of the version that ran last, so that what came of it can stand beside. */
  const isAsItRan = computed(
    () =>
      drawn.value?.last != null &&
      JSON.stringify(drawn.value.last) === JSON.stringify(sequence.value?.map),
  )

  /** What of a map says whom to draw, and what must be known of them. */
  const asks = computed(() => {
    const of = sequence.value
    if (!isOn.value || !of) return null
    const events = happeningsOf(of.map).filter(({ is }) => is === 'did')
    const waits = askedByWaits(of.map)
    return JSON.stringify([of.id, of.listId, rulesOf(of.map), of.map.start.rule, events, waits])
  })

  async function draw() {
    const mine = ++asked
    isDrawing = true
    no++
    problem.value = ''
    isCurrent.value = false
    const { id, map, listId } = sequence.value!
    try {
      const got = await question<Drawn>(`/api/sequences/${id}/rehearsal`, { map, listId })
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
    const { audience, last, now } = drawn.value
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
      against: isAsItRan.value ? null : last,
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

  return { isOn, seed, days, drawn, rehearsal, before, problem, isCurrent, isAsItRan, show, draw }
})
