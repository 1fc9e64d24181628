<script setup lang="ts">
import { isAlike } from '~~/core/choices'
import {
  MESSAGES_SHOWN,
  readMessagesAsked,
  type Message,
  type MessagesAsked,
} from '~~/core/results'

/** A mailing's messages one by one: to whom, where each stands, and what they did with it. What is chosen has an address. */
const props = defineProps<{ mailing: number }>()
const route = useRoute()
const { dayAndTime } = useTimes()
const asked = computed(() => readMessagesAsked(route.query))
const { answer, problem } = useAnswer<{
  asked: MessagesAsked
  messages: Message[]
  more: boolean
  counts: { state: string; many: number }[]
}>(
  () => {
    const { state, to, offset } = asked.value
    const chosen = { ...(state && { state }), ...(to && { to }) }
    const query = new URLSearchParams({ ...chosen, offset: String(offset) })
    return `/api/mailings/${props.mailing}/messages?${query.toString()}`
  },
  { sparing: true },
)
/** Of what is chosen now; until it is answered, nothing else is shown for it. */
const shown = computed(() =>
  answer.value && isAlike(answer.value.asked, asked.value) ? answer.value : null,
)
/** By the last answer, whatever was asked. */
const states = computed(() => answer.value?.counts ?? [])
const all = computed(() => states.value.reduce((sum, { many }) => sum + many, 0))
const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)
/** The newest of what is chosen, unless some are to be passed over. */
function choose(change: Partial<MessagesAsked>) {
  const { state, to, offset } = { ...asked.value, offset: 0, ...change }
  const { state: _, to: __, offset: ___, ...rest } = route.query
  const page = offset > 0 && { offset: String(offset) }
  void goTo({
    query: { ...rest, ...(state && { state }), ...(to && { to }), ...page },
    hash: '#messages',
  })
}
const value = (event: Event) => (event.target as HTMLInputElement).value
const did = ({ opened_at, clicked_at, replied_at, left_at }: Message) =>
  [
    opened_at !== null && 'opened',
    clicked_at !== null && 'clicked',
    replied_at !== null && 'replied',
    left_at !== null && 'unsubscribed',
  ]
    .filter(Boolean)
    .join(', ')
const id = useId()
</script>

<template>
  <section id="messages" class="sheet col-span-2" aria-label="Messages, one by one">
    <div class="sheet-head">
      <h2>
        <label :for="id">Messages, one by one</label>
        <select
          :id="id"
          class="field field-sm ml-2 inline-block w-auto font-normal"
          :value="asked.state ?? ''"
          @change="choose({ state: value($event) || null })"
        >
          <option value="">all{{ all ? ` ${count(all)}` : '' }}</option>
          <option v-for="one in states" :key="one.state" :value="one.state">
            {{ one.state }} {{ count(one.many) }}
          </option>
          <option
            v-if="asked.state && !states.some(({ state }) => state === asked.state)"
            :value="asked.state"
          >
            {{ asked.state }}
          </option>
        </select>
      </h2>
      <label class="ml-auto flex items-center gap-2"
        ><span class="small muted">the newest first, to</span>
        <input
          class="field field-sm !w-44"
          type="search"
          placeholder="name or address"
          maxlength="100"
          :value="asked.to ?? ''"
          @change="choose({ to: value($event).trim() || null })"
      /></label>
    </div>
    <p v-if="problem && !shown" class="fault p-4" role="alert">{{ problem }}</p>
    <p v-else-if="!shown" class="muted p-4" role="status">Looking…</p>
    <p v-else-if="!shown.messages.length" class="muted p-4">There are none.</p>
    <template v-else>
      <table class="grid-table">
        <thead>
          <tr>
            <th>To</th>
            <th>Stands</th>
            <th>Since</th>
            <th>They</th>
            <th>Answer</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in shown.messages" :key="`${one.person_id} ${one.round}`">
            <td class="max-w-[240px] truncate">
              <NuxtLink v-if="one.name" class="link" :to="`/people/${one.person_id}`">{{
                one.name
              }}</NuxtLink><span v-else class="muted">somebody who was erased</span
              ><span v-if="one.round > 0" class="muted small"> time {{ one.round + 1 }}</span>
            </td>
            <td>{{ capital(one.state) }}</td>
            <td class="whitespace-nowrap">{{ dayAndTime(one.at) }}</td>
            <td>{{ did(one) }}</td>
            <td class="muted max-w-[360px] truncate" :title="one.answer ?? ''">{{ one.answer }}</td>
          </tr>
        </tbody>
      </table>
      <div v-if="asked.offset > 0 || shown.more" class="flex gap-2 p-3">
        <button
          v-if="asked.offset > 0"
          type="button"
          class="btn btn-sm"
          @click="choose({ offset: Math.max(0, asked.offset - MESSAGES_SHOWN) })"
        >
          Newer
        </button>
        <button
          v-if="shown.more"
          type="button"
          class="btn btn-sm"
          @click="choose({ offset: asked.offset + MESSAGES_SHOWN })"
        >
          Older
        </button>
      </div>
    </template>
  </section>
</template>
