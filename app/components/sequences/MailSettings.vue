<script setup lang="ts">
import type { MailStep } from '~~/core/sequences'

/** A mail's letter, and what came of it. */
const props = defineProps<{ step: MailStep }>()
const store = useSequence()
const mail = computed(() => store.sequence!.mailings.find(({ id }) => id === props.step.mailingId))
</script>

<template>
  <h2>Mail</h2>
  <p v-if="!mail" class="fault mt-2">This mail is gone. Remove the step.</p>
  <template v-else>
    <p class="mt-1 font-semibold">{{ mail.subject || mail.name }}</p>
    <div class="mt-2 flex flex-wrap gap-2">
      <NuxtLink class="btn btn-sm" :to="`/mail/${mail.id}/letter`">{{
        mail.started_at === null ? 'Write the letter' : 'Look at the letter'
      }}</NuxtLink>
      <NuxtLink v-if="mail.started_at !== null" class="btn btn-sm" :to="`/mail/${mail.id}/results`"
        >See results</NuxtLink
      >
    </div>
    <p v-if="mail.started_at !== null && store.canChange" class="muted small mt-2">
      It has gone out to people, so its letter stays as it is. To say it otherwise from now on, put
      another mail in its place.
    </p>
  </template>
</template>
