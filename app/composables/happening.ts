import type { HappeningAnswer } from '~~/core/dispatch'

/**
 * What will happen when the open mailing is sent off at a time (null: now), as the server has it. It is only as good as
 * what is saved: while something of the mailing is unsaved, or the answer is from before the last saving, there is none.
 */
export function useHappening(at: () => number | null) {
  const store = useMailing()
  const unsaved = useUnsaved()
  const of = computed(() => (store.mailing ? `/api/mailings/${store.mailing.id}` : null))
  const settled = computed(() => of.value !== null && unsaved.isSettled(of.value))
  /** Counts savings: an answer that was asked for before the last one says nothing. */
  const savings = ref(0)
  const answeredFor = ref(-1)
  const { answer, problem, loading, reload } = useAnswer<HappeningAnswer, number>(
    () => of.value && `${of.value}/happening${at() === null ? '' : `?at=${at()}`}`,
    { before: () => savings.value, after: (_, before) => (answeredFor.value = before) },
  )
  watch(settled, (now) => {
    if (!now) return void savings.value++
    void reload()
  })
  const now = computed(() =>
    settled.value && !loading.value && answeredFor.value === savings.value ? answer.value : null,
  )
  /** Why it can't be told yet; null where it can. */
  const waits = computed(() => {
    if (of.value && unsaved.problemWith(of.value)) return unsaved.problemWith(of.value)
    if (!settled.value) return 'Saving what you chose…'
    if (now.value) return null
    return problem.value ?? 'Asking what will happen…'
  })
  return { now, waits, reload }
}
