import type { Asked } from '~~/core/choices'
import type { DispatchPlan } from '~~/core/dispatch'
import type { PlanAnswer } from '~~/core/dispatch'

/** How the fields of a plan are called where two people's stand side by side. */
const names = {
  pace: 'Order',
  perMinute: 'A minute',
  providers: 'Single providers',
  zoneField: 'Time zones stand in',
  localAt: 'Time on each reader’s clock',
  watchMinutes: 'Watched for',
  limits: 'Limits',
  holdout: 'Held out',
  test: 'A/B test',
  goal: 'Goal',
  sender: 'From',
}

/** How a mailing goes out is kept by this; one for each mailing. */
export function planKeeper(id: number): Keeper<DispatchPlan> {
  const path = `/api/mailings/${id}/plan`
  return keeperOf<DispatchPlan>(path, () => ({
    of: `/api/mailings/${id}`,
    names,
    async load() {
      const { plan, version } = await request<PlanAnswer>(path)
      return { value: plan, version }
    },
    async save(plan, version) {
      const body = { plan, version }
      const saved = await changeAt<Pick<PlanAnswer, 'plan' | 'version'>>(path, {
        method: 'PUT',
        body,
      })
      return { value: saved.plan, version: saved.version }
    },
  }))
}

/**
 * How the open mailing goes out. What is chosen is shown at once and kept until the server has it; `known` is false while
 * it has not said how it stands, and then there is nothing to choose from.
 */
export function usePlan() {
  const store = useMailing()
  const id = computed(() => store.mailing?.id ?? null)
  const keeper = computed(() => (id.value === null ? null : planKeeper(id.value)))
  const { answer, problem, reload } = useAnswer<PlanAnswer, Asked | null>(
    () => (id.value === null ? null : `/api/mailings/${id.value}/plan`),
    {
      before: () => keeper.value?.asks() ?? null,
      after({ plan, version }, before) {
        if (before) keeper.value?.hear(before, { value: plan, version })
      },
    },
  )
  const plan = computed(() => keeper.value?.shown() ?? null)
  function change(next: Partial<DispatchPlan>) {
    if (plan.value) keeper.value?.choose({ ...plan.value, ...next })
  }
  // What the plan lacks, and what it comes to, is asked for again once it is saved.
  watch(
    () => keeper.value?.state.value.known?.version,
    (now, before) => before !== undefined && now !== before && void reload(),
  )
  return {
    answer,
    problem,
    keeper,
    plan,
    known: computed(() => plan.value !== null),
    change,
    reload,
  }
}
export type Plan = ReturnType<typeof usePlan>
