<script setup lang="ts">
import { variantName } from '~~/core/dispatch'

/** The parts of a mailing on its way: what has gone, what waits and for what; a test can be decided here. */
const props = defineProps<{ plan: Plan }>()
const store = useMailing()
const live = useLive()
const { dayAndTime } = useTimes()
const answer = computed(() => props.plan.answer.value)
/** It is drawn only once the plan is known. */
const plan = computed(() => props.plan.plan.value!)
const parts = computed(() => answer.value?.parts ?? [])
const names: Record<string, string> = {
  everybody: 'Everybody',
  test: 'The test',
  rest: 'The rest',
}
const nameOf = (kind: string) => names[kind] ?? `The ${kind.slice(5)}`
const awaited = computed(
  () =>
    !!plan.value.test &&
    answer.value?.winner === null &&
    parts.value.some((one) => one.begunAt === null),
)
const decidesAt = computed(() => answer.value?.decidesAt ?? null)
function stateOf(part: (typeof parts.value)[number], i: number) {
  if (part.begunAt !== null)
    return part.waiting
      ? `${count(part.tried)} gone, ${count(part.waiting)} to go`
      : `${count(part.tried)} gone`
  if (awaited.value) return 'waits for the test'
  return parts.value[i - 1]?.begunAt == null
    ? 'after the one before'
    : 'follows when the one before is well'
}
async function decide(variant: number) {
  await act(`/api/mailings/${store.mailing!.id}/winner`, 'POST', { variant })
  await props.plan.reload()
  await store.refresh()
}
</script>

<template>
  <section v-if="parts.length > 1 || plan.test" class="sheet mt-4" aria-labelledby="parts">
    <div class="sheet-head"><h2 id="parts">In parts</h2></div>
    <table class="grid-table">
      <tbody>
        <tr v-for="(part, i) in parts" :key="i">
          <td class="w-40 font-[560]">{{ nameOf(part.kind) }}</td>
          <td>{{ stateOf(part, i) }}</td>
          <td class="muted text-right">
            {{ part.begunAt === null ? '' : `began ${dayAndTime(part.begunAt)}` }}
          </td>
        </tr>
      </tbody>
    </table>
    <div v-if="plan.test" class="border-t border-line-soft p-3.5">
      <p v-if="answer?.winner != null">
        The rest gets <b>{{ variantName(answer.winner) }}</b>, decided
        {{ dayAndTime(answer.decidedAt!) }} by {{ answer.decidedBy }}.
      </p>
      <template v-else-if="awaited">
        <p v-if="decidesAt">
          The test decides by itself {{ dayAndTime(decidesAt)
          }}{{ decidesAt < live.now ? ', any moment now' : '' }}.
        </p>
        <p v-else-if="plan.test.decides === 'itself'">
          The test decides by itself {{ several(plan.test.hours, 'hour', 'hours') }} after the last
          of its messages was accepted.
        </p>
        <p v-else>The rest waits until you decide.</p>
        <div class="mt-2 flex flex-wrap items-center gap-2">
          <span class="muted">{{
            plan.test.decides === 'itself' ? 'Or now:' : 'Send the rest'
          }}</span>
          <button
            v-for="(_, i) in plan.test.variants"
            :key="i"
            type="button"
            class="btn btn-sm"
            @click="decide(i)"
          >
            Variant {{ variantName(i) }}
          </button>
          <NuxtLink class="link" :to="`/mail/${store.mailing!.id}/results`"
            >How they do so far</NuxtLink
          >
        </div>
      </template>
    </div>
  </section>
</template>
