<script setup lang="ts">
import type { ProviderSays, TrialState } from '~~/core/delivery'

type Trial = ProviderSays & {
  address: string
  state: TrialState
  asked_at: number
  folder: string | null
  took: number | null
  changed: boolean
}
/** The letter sent to mailboxes of one's own, and where each provider put it. */
const store = useMailing()
const { dayAndTime } = useTimes()
const { answer, reload } = useAnswer<{ mailboxes: number; trials: Trial[] }>(() =>
  store.mailing ? `/api/mailings/${store.mailing.id}/trial` : null,
)
const asking = ref(false)
const trials = computed(() => answer.value?.trials ?? [])
const open = computed(() =>
  trials.value.some(({ state }) => ['waiting', 'sending', 'sent'].includes(state)),
)
watch(open, (is, was) => was && !is && store.proof())
async function send() {
  asking.value = true
  await store.flush()
  await act(`/api/mailings/${store.mailing!.id}/trial`, 'POST')
  await reload()
  asking.value = false
}
const places: Record<TrialState, string> = {
  waiting: 'waits to be sent',
  sending: 'waits to be sent',
  sent: 'on its way',
  inbox: 'Inbox',
  junk: 'Junk',
  missing: 'did not come',
  refused: 'not taken',
  closed: 'mailbox not opened',
}
const checks = ['spf', 'dkim', 'dmarc'] as const
function place({ state, folder }: Trial) {
  return state === 'junk' && folder ? `Junk: “${folder}”` : places[state]
}
function took(ms: number | null) {
  return ms === null
    ? ''
    : ms < 1_500
      ? 'at once'
      : `after ${several(Math.round(ms / 1_000), 'second', 'seconds')}`
}
</script>

<template>
  <section v-if="answer" class="sheet mt-4" aria-labelledby="trial-title">
    <div class="sheet-head">
      <h2 id="trial-title">Trial delivery</h2>
      <span class="flex items-center gap-3">
        <span v-if="trials.length" class="muted small"
          >tried {{ dayAndTime(trials[0]!.asked_at)
          }}<template v-if="trials[0]!.changed">, and changed since</template></span
        >
        <button
          v-if="answer.mailboxes"
          type="button"
          class="btn btn-sm"
          :disabled="open || asking"
          @click="send"
        >
          {{ trials.length ? 'Try again' : 'Try it' }}
        </button>
      </span>
    </div>
    <p v-if="!trials.length" class="muted p-3.5">
      <template v-if="answer.mailboxes"
        >Send the letter to {{ several(answer.mailboxes, 'mailbox', 'mailboxes') }} of your own, and
        see where each provider puts it.</template
      ><template v-else
        >With mailboxes of your own at a few providers you see where each puts the letter, before
        anybody else gets it.
        <NuxtLink class="link" to="/settings#trial-mailboxes"
          >Add trial mailboxes</NuxtLink
        ></template
      >
    </p>
    <table v-else class="w-full text-left text-[13px]">
      <thead class="muted">
        <tr>
          <th class="px-3.5 py-1.5 font-normal">Mailbox</th>
          <th class="font-normal">Where it came to</th>
          <th v-for="check in checks" :key="check" class="pr-3.5 font-normal">
            {{ check.toUpperCase() }}
          </th>
        </tr>
      </thead>
      <tbody role="status">
        <tr v-for="one in trials" :key="one.address" class="border-t border-line-soft align-top">
          <th scope="row" class="px-3.5 py-1.5 text-[13px] font-[560] text-ink-900">
            {{ one.address }}
          </th>
          <td class="py-1.5 pr-3">
            <MarkDot
              v-if="['junk', 'missing', 'refused', 'closed'].includes(one.state)"
              level="caution"
              class="mr-1 inline"
            />{{ place(one) }} <span class="muted">{{ took(one.took) }}</span>
            <span v-if="one.words" class="muted block">{{ one.words }}</span>
          </td>
          <td v-for="check in checks" :key="check" class="py-1.5 pr-3.5">
            <span :class="one[check] === 'fail' && 'font-semibold text-bad-600'">{{
              one[check] ?? '—'
            }}</span>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
