<script setup lang="ts">
import { MOST_WAIT_DAYS, USUAL_WAIT_DAYS, type MailStep } from '~~/core/sequences'

/** A mail's letter, and what came of it. */
const props = defineProps<{ id: string; step: MailStep }>()
const store = useSequence()
const change = (over: Partial<MailStep>) => {
  const { full, paused, quiet, ...rest } = { ...props.step, ...over }
  const chosen = { ...(full && { full }), ...(paused && { paused }), ...(quiet && { quiet }) }
  void store.changeStep(props.id, { ...rest, ...chosen })
}
const value = (event: Event) => (event.target as HTMLSelectElement).value
const whenFull = computed(() =>
  props.step.full === undefined ? 'past' : props.step.full === 'skip' ? 'skip' : 'wait',
)
const waitDays = computed(() =>
  typeof props.step.full === 'object' ? props.step.full.waitDays : USUAL_WAIT_DAYS,
)
function chooseFull(choice: string) {
  change({
    full:
      choice === 'wait' ? { waitDays: USUAL_WAIT_DAYS } : choice === 'skip' ? 'skip' : undefined,
  })
}
const chooseQuiet = (choice: string) =>
  change({ quiet: choice === 'skip' || choice === 'past' ? choice : undefined })
function setDays(days: number) {
  if (Number.isFinite(days))
    change({ full: { waitDays: Math.round(Math.min(MOST_WAIT_DAYS, Math.max(1, days))) } })
}
const mail = computed(() => store.sequence!.mailings.find(({ id }) => id === props.step.mailingId))
</script>

<template>
  <h2>Mail</h2>
  <p v-if="!mail" class="fault mt-2">This mail is gone. Remove the step.</p>
  <template v-else>
    <p v-if="!step.versions" class="mt-1 font-semibold">{{ mail.subject || mail.name }}</p>
    <p v-else class="muted small mt-1">
      Everybody gets one of its versions, always the same. What has gone out to people stays as it
      is: to say it otherwise from now on, try another version.
    </p>
    <div v-if="!step.versions" class="mt-2 flex flex-wrap gap-2">
      <NuxtLink class="btn btn-sm" :to="`/mail/${mail.id}/letter`">{{
        mail.started_at === null ? 'Write the letter' : 'Look at the letter'
      }}</NuxtLink>
      <NuxtLink v-if="mail.started_at !== null" class="btn btn-sm" :to="`/mail/${mail.id}/results`"
        >See results</NuxtLink
      >
    </div>
    <p
      v-if="!step.versions && mail.started_at !== null && store.canChange"
      class="muted small mt-2"
    >
      It has gone out to people, so its letter stays as it is. To say it otherwise from now on, put
      another mail in its place, or try another version.
    </p>
    <MailVersions :id="id" :step="step" />
    <fieldset class="mt-4 grid gap-3" :disabled="!store.canChange">
      <label class="grid gap-1"
        ><span class="muted small">Who had as much mail as they or the account allow</span>
        <select class="field field-sm" :value="whenFull" @change="chooseFull(value($event))">
          <option value="past">gets it all the same</option>
          <option value="wait">waits until there is room</option>
          <option value="skip">goes on without it</option>
        </select></label
      >
      <label v-if="whenFull === 'wait'" class="flex items-center gap-2"
        >at most
        <KeptInput
          class="field field-sm w-16 text-right"
          type="number"
          min="1"
          :max="MOST_WAIT_DAYS"
          aria-label="At most, days"
          :value="waitDays"
          @taken="setDays(Number($event))"
        />
        days, then it goes out</label
      >
      <label class="grid gap-1"
        ><span class="muted small">In the account’s quiet hours</span>
        <select
          class="field field-sm"
          :value="step.quiet ?? 'wait'"
          @change="chooseQuiet(value($event))"
        >
          <option value="wait">waits until they are over</option>
          <option value="past">goes out all the same</option>
          <option value="skip">they go on without it</option>
        </select></label
      >
      <label class="grid gap-1"
        ><span class="muted small">Who paused their mail</span>
        <select
          class="field field-sm"
          :value="step.paused ?? 'wait'"
          @change="change({ paused: value($event) === 'skip' ? 'skip' : undefined })"
        >
          <option value="wait">gets it when the pause is over</option>
          <option value="skip">goes on without it</option>
        </select></label
      >
    </fieldset>
  </template>
</template>
