<script setup lang="ts">
import type { Goal } from '~~/core/dispatch'
import type { HappeningAnswer } from '~~/core/dispatch'

/** What the mailing is for, and who is kept from it to see what it brought. */
const props = defineProps<{ plan: Plan; happening: HappeningAnswer | null }>()
/** It is drawn only once the plan is known. */
const plan = computed(() => props.plan.plan.value!)
const goals: { is: Goal['is']; name: string }[] = [
  { is: 'order', name: 'an order' },
  { is: 'event', name: 'an event' },
  { is: 'link', name: 'a visited link' },
  { is: 'enters', name: 'coming into a segment' },
  { is: 'leaves', name: 'leaving a segment' },
]
function choose(is: string) {
  if (is === '') return props.plan.change({ goal: null })
  const what = optionsFor(is as Goal['is'])[0]?.value ?? ''
  props.plan.change({ goal: { is: is as Goal['is'], what, days: plan.value.goal?.days ?? 5 } })
}
const change = (next: Partial<Goal>) =>
  plan.value.goal && props.plan.change({ goal: { ...plan.value.goal, ...next } })
/** What there is to choose from for a goal of a kind. */
function optionsFor(is: Goal['is']): { value: string; name: string }[] {
  const { events = [], links = [], segments = [] } = props.plan.answer.value ?? {}
  if (is === 'enters' || is === 'leaves')
    return segments.map(({ id, name }) => ({ value: String(id), name }))
  return { order: [], event: events, link: links }[is].map((one) => ({ value: one, name: one }))
}
const options = computed(() => (plan.value.goal ? optionsFor(plan.value.goal.is) : []))
const labels: Partial<Record<Goal['is'], string>> = { event: 'Which event', link: 'Which link' }
const given = (event: Event) => (event.target as HTMLInputElement).value
const heldOut = computed(() => props.happening?.happening?.heldOut ?? null)
const id = useId()
</script>

<template>
  <section class="sheet mt-4 p-4" :aria-labelledby="`${id}-title`">
    <h2 :id="`${id}-title`">Goal and holdout</h2>
    <div class="mt-2 grid grid-cols-[130px_1fr] items-center gap-x-4 gap-y-2.5">
      <label :for="`${id}-goal`">It is for</label>
      <span class="flex flex-wrap items-center gap-2"
        ><select
          :id="`${id}-goal`"
          class="field field-sm w-52"
          :value="plan.goal?.is ?? ''"
          @change="choose(given($event))"
        >
          <option value="">nothing that is counted</option>
          <option v-for="goal in goals" :key="goal.is" :value="goal.is">{{ goal.name }}</option>
        </select>
        <template v-if="plan.goal">
          <select
            v-if="plan.goal.is !== 'order'"
            class="field field-sm max-w-60"
            :aria-label="labels[plan.goal.is] ?? 'Which segment'"
            :value="plan.goal.what"
            @change="change({ what: given($event) })"
          >
            <option v-for="one in options" :key="one.value" :value="one.value">
              {{ one.name }}
            </option>
          </select>
          within
          <KeptInput
            type="number"
            min="1"
            max="365"
            class="field field-sm w-16"
            aria-label="Days"
            :value="plan.goal.days"
            @taken="change({ days: Number($event) || 5 })"
          />days
        </template></span
      >
      <label :for="`${id}-holdout`">Control group</label>
      <span class="flex items-center gap-2"
        ><select
          :id="`${id}-holdout`"
          class="field field-sm w-40"
          :value="plan.holdout"
          @change="props.plan.change({ holdout: Number(given($event)) })"
        >
          <option :value="0">nobody</option>
          <option v-for="n in [2, 5, 10, 20, 50]" :key="n" :value="n / 100">{{ n }}%</option>
        </select>
        <span class="muted small">{{
          plan.holdout
            ? `${heldOut === null ? 'those' : people(heldOut)} drawn by lot don’t get it: what they do tells what it brought`
            : 'everybody gets it, so nobody can say what they would have done without it'
        }}</span></span
      >
    </div>
  </section>
</template>
