<script setup lang="ts">
import { tellings, type SignUpForm, type Telling } from '~~/core/sign-ups'

/** Who is told of each who confirms: somebody of the team by mail, and a program by its webhook. */
interface Call {
  id: number
  person_id: number
  address: string
  at: number
  due: number | null
  tries: number
  taken: number
  answer: string | null
}
const store = useSignUp()
const live = useLive()
const { dayAndTime } = useTimes()
const form = computed(() => store.form!)
const team = computed(() => [
  ...new Set([...store.signUp!.team, ...(form.value.tell.to ? [form.value.tell.to] : [])]),
])
const hows: Record<Telling, string> = {
  never: 'nobody',
  each: 'by a mail about each',
  daily: 'by one mail a day, at 8 o’clock',
}
const tellSet = (change: Partial<SignUpForm['tell']>) => {
  const tell = { ...form.value.tell, ...change }
  store.setForm({ tell: { ...tell, to: tell.to || team.value[0]! } })
}
const setWebhook = (url: string) => store.setForm({ webhook: url.trim() })
const path = computed(() => `/api/sign-ups/${store.signUp!.id}/calls`)
const may = computed(() => useSession().may('GET /api/sign-ups/[id]/calls'))
const { answer, problem } = useAnswer<{ key: string; calls: Call[] }>(() =>
  may.value && form.value.webhook ? path.value : null,
)
const shown = ref(false)
async function again(call: Call) {
  if (!(await act(path.value, 'POST', { call: call.id }))) return
  live.changes++
  useNotices().say('It is sent again now.')
}
const stateOf = ({ taken, due, answer }: Call) =>
  taken
    ? 'taken'
    : due === null
      ? `given up: ${answer}`
      : answer
        ? `${answer}; tried again`
        : 'on its way'
const text = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <section class="sheet" aria-label="Who is told">
    <div class="sheet-head">
      <h2>Who is told</h2>
      <span class="muted small">of each who has confirmed</span>
    </div>
    <fieldset class="grid gap-4 p-4" :disabled="!store.canChange">
      <div class="grid grid-cols-2 gap-3">
        <label class="grid gap-1"
          ><span class="muted small">The team</span
          ><select
            class="field field-sm"
            :value="form.tell.how"
            @change="tellSet({ how: text($event) as Telling })"
          >
            <option v-for="how in tellings" :key="how" :value="how">{{ hows[how] }}</option>
          </select></label
        >
        <label v-if="form.tell.how !== 'never'" class="grid gap-1"
          ><span class="muted small">To</span
          ><select
            class="field field-sm"
            :value="form.tell.to"
            @change="tellSet({ to: text($event) })"
          >
            <option v-for="one in team" :key="one" :value="one">{{ one }}</option>
          </select></label
        >
      </div>
      <label class="grid gap-1"
        ><span class="muted small">A program, at its webhook (JSON by POST, signed)</span
        ><KeptInput
          class="field"
          type="url"
          :value="form.webhook"
          maxlength="2000"
          placeholder="https://"
          @taken="setWebhook"
      /></label>
    </fieldset>
    <p v-if="problem" class="fault px-4 pb-4" role="alert">{{ problem }}</p>
    <div v-else-if="form.webhook && answer" class="border-t border-line">
      <p class="muted small px-4 py-3">
        Each call carries its time (<code>Satchel-Time</code>, seconds) and
        <code>Satchel-Signature: sha256=…</code>, the HMAC-SHA256 in hex over that time, a full stop
        and the body, by this key:
        <code v-if="shown" class="break-all">{{ answer.key }}</code><button
          v-else
          type="button"
          class="link"
          @click="shown = true"
        >
          show the key</button
        >. An answer other than 2xx, or none, is tried again for a day.
      </p>
      <p v-if="!answer.calls.length" class="muted px-4 pb-4">
        Nobody has confirmed since it is published, so nothing was sent yet.
      </p>
      <table v-else class="grid-table">
        <thead>
          <tr>
            <th>Whom about</th>
            <th>Sent</th>
            <th>What it answered</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="call in answer.calls" :key="call.id">
            <td class="max-w-[220px] truncate">
              <NuxtLink class="link" :to="`/people/${call.person_id}`">{{ call.address }}</NuxtLink>
            </td>
            <td class="whitespace-nowrap">{{ dayAndTime(call.at) }}</td>
            <td>{{ stateOf(call) }}</td>
            <td>
              <button
                v-may="'POST /api/sign-ups/[id]/calls'"
                type="button"
                class="link small whitespace-nowrap"
                @click="again(call)"
              >
                Send again
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>
