import { plainPlan, type DispatchPlan } from '~~/core/dispatch'
import type { PlanAnswer } from '~~/server/api/mailings/[id]/plan.get'

/** How the open mailing goes out, as the server has it; changes go there at once, one after the other. */
export function usePlan() {
  const store = useMailing()
  const { answer, reload } = useAnswer<PlanAnswer>(() =>
    store.mailing ? `/api/mailings/${store.mailing.id}/plan` : null,
  )
  const plan = computed(() => answer.value?.plan ?? plainPlan)
  let saving = Promise.resolve()
  function change(next: Partial<DispatchPlan>) {
    if (!answer.value || !store.mailing) return
    const { id } = store.mailing
    const whole = { ...plan.value, ...next }
    answer.value = { ...answer.value, plan: whole }
    saving = saving.then(async () => {
      await ask(`/api/mailings/${id}/plan`, { method: 'PUT', body: whole })
      await reload()
    })
  }
  /** How many get it, less those held out. */
  const mailed = computed(() => Math.round(store.eligible * (1 - plan.value.holdout)))
  return { answer, plan, change, mailed, reload }
}
export type Plan = ReturnType<typeof usePlan>
