<script setup lang="ts">
/** What people wrote back, the newest first, each with its words and whether it was passed on. */
export interface ShownReply {
  id: number
  at: number
  person_id?: number
  from_name: string
  from_address: string
  subject: string
  text: string
  passed_on_at: number | null
  pass_on_note: string | null
}
defineProps<{ replies: readonly ShownReply[] }>()
const { dayAndTime } = useTimes()
const live = useLive()
const whole = ref<number | null>(null)
/** Longer ones show their beginning, and all of it when asked for. */
const SHORT = 240
const isLong = ({ text }: ShownReply) => text.length > SHORT
const words = (one: ShownReply) =>
  isLong(one) && whole.value !== one.id ? `${one.text.slice(0, SHORT).trimEnd()}…` : one.text
/** Not yet passed on is only worth a word when it should have been. */
const passing = (one: ShownReply) =>
  one.passed_on_at !== null
    ? null
    : (one.pass_on_note ?? (live.now - one.at > 60_000 ? 'Not passed on yet.' : null))
</script>

<template>
  <ul>
    <li
      v-for="one in replies"
      :key="one.id"
      class="border-t border-line-soft px-3.5 py-2.5 first:border-0"
    >
      <p class="flex flex-wrap items-baseline justify-between gap-x-3">
        <span class="min-w-0 truncate"
          ><NuxtLink
            v-if="one.person_id !== undefined"
            class="link font-[560]"
            :to="`/people/${one.person_id}`"
            >{{ one.from_name || one.from_address }}</NuxtLink
          ><b v-else class="font-[560]">{{ one.subject || 'No subject' }}</b></span
        ><span class="muted small whitespace-nowrap">{{ dayAndTime(one.at) }}</span>
      </p>
      <p class="mt-0.5 break-words whitespace-pre-line">{{ words(one) }}</p>
      <button
        v-if="isLong(one)"
        class="link small"
        :aria-expanded="whole === one.id"
        @click="whole = whole === one.id ? null : one.id"
      >
        {{ whole === one.id ? 'Show less' : 'Show all' }}
      </button>
      <p v-if="passing(one)" class="muted small">{{ passing(one) }}</p>
    </li>
  </ul>
</template>
