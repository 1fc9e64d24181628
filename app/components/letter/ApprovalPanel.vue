<script setup lang="ts">
import type { Approval } from '~~/core/proof'

/** Whether somebody else finds the letter good, before it goes out. */
const store = useMailing()
const { dayAndTime } = useTimes()
const base = computed(() => `/api/mailings/${store.mailing!.id}/approval`)
const asked = useAnswer<{
  approval: Approval | null
  me: number
  others: { id: number; name: string }[]
}>(() => base.value)
const approval = computed(() => asked.answer.value?.approval ?? null)
const others = computed(() => asked.answer.value?.others ?? [])
const mine = computed(() => approval.value?.ofId === asked.answer.value?.me)
const asking = ref(false)
const of = ref<number | null>(null)
const note = ref('')
const words = ref('')
async function tellThem(method: 'POST' | 'PUT' | 'DELETE', body?: object) {
  await store.flush()
  const done = await act(base.value, method, body)
  if (!done) return
  asking.value = false
  note.value = words.value = ''
  await asked.reload()
  await store.proof()
}
async function answer(verdict: 'approved' | 'not yet') {
  await store.flush()
  await store.refresh()
  await tellThem('PUT', {
    verdict,
    words: words.value,
    sawVersion: store.mailing!.letter.version,
  })
}
</script>

<template>
  <section v-if="asked.answer.value" class="border-b border-line px-3.5 py-3 text-[12.5px]">
    <h2>Approval</h2>
    <template v-if="approval">
      <p class="mt-1.5">
        <template v-if="approval.verdict === null"
          ><b>{{ approval.ofName }}</b> was asked by {{ approval.askedBy }} on
          {{ dayAndTime(approval.askedAt) }}.</template
        ><template v-else-if="approval.lapsed"
          ><b>{{ approval.ofName }}</b> approved it on {{ dayAndTime(approval.answeredAt!) }}. Since
          then changed: {{ approval.lapsedBy.join(', ') }}; so that holds no more.</template
        ><template v-else-if="approval.verdict === 'approved'"
          ><b>{{ approval.ofName }}</b> approved it on {{ dayAndTime(approval.answeredAt!) }}, as it
          is now.</template
        ><template v-else
          ><b>{{ approval.ofName }}</b> said “not yet” on
          {{ dayAndTime(approval.answeredAt!) }}.</template
        >
      </p>
      <p v-if="approval.note" class="muted mt-1">“{{ approval.note }}”</p>
      <p v-if="approval.words" class="mt-1 border-l-2 border-line pl-2">{{ approval.words }}</p>
      <form
        v-if="mine && store.canChange && (approval.verdict !== 'approved' || approval.lapsed)"
        class="mt-2 space-y-1.5"
        @submit.prevent="answer('approved')"
      >
        <textarea
          v-model="words"
          class="field min-h-14"
          aria-label="What you say to it"
          placeholder="What you say to it"
          maxlength="1000"
        />
        <div class="flex gap-1.5">
          <button class="btn btn-sm btn-go">Approve it</button
          ><button type="button" class="btn btn-sm" @click="answer('not yet')">Not yet</button>
        </div>
      </form>
      <div v-else-if="store.canChange" class="mt-2 flex gap-1.5">
        <button
          v-if="approval.verdict !== null && (approval.lapsed || approval.verdict === 'not yet')"
          class="btn btn-sm"
          @click="tellThem('POST', { ofId: approval.ofId, note: '' })"
        >
          Ask again</button
        ><button class="btn btn-sm" @click="tellThem('DELETE')">Go without</button>
      </div>
    </template>
    <form
      v-else-if="asking"
      class="mt-1.5 space-y-1.5"
      @submit.prevent="tellThem('POST', { ofId: of, note })"
    >
      <select v-model="of" class="field field-sm" aria-label="Whom to ask">
        <option v-for="one in others" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select>
      <input
        v-model="note"
        class="field field-sm"
        aria-label="A word to them"
        placeholder="A word to them"
        maxlength="1000"
      />
      <div class="flex gap-1.5">
        <button class="btn btn-sm btn-go" :disabled="of === null">Ask</button
        ><button type="button" class="btn btn-sm" @click="asking = false">Cancel</button>
      </div>
    </form>
    <template v-else>
      <p class="muted mt-1">Nobody was asked. The letter can go out without it.</p>
      <button
        v-if="others.length && store.canChange"
        class="btn btn-sm mt-2"
        @click="((asking = true), (of = others[0]!.id))"
      >
        Ask somebody to approve it…
      </button>
      <p v-else-if="!others.length" class="muted mt-1">
        Add somebody who works here under <NuxtLink to="/settings" class="link">Settings</NuxtLink>,
        to ask them.
      </p>
    </template>
  </section>
</template>
