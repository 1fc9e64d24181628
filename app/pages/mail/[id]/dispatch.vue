<script setup lang="ts">
import { addDays, localInputToTime, timeToLocalInput } from '~~/core/time'

const store = useMailing()
const session = useSession()
const live = useLive()
const notices = useNotices()
const { dayAndTime } = useTimes()
const when = ref<'now' | 'later'>('now')
const later = ref('')
const fault = ref('')
const busy = ref(false)
const asking = ref<'cancel' | 'resend' | null>(null)
onMounted(
  () =>
    (later.value = timeToLocalInput(
      store.mailing?.scheduled_at ?? addDays(live.now, 1, session.zone),
      session.zone,
    )),
)

const plan = usePlan()
/** Whether somebody may still get it later: the rest of a test, or the next tier. */
const unbegun = computed(() => !!plan.answer.value?.parts.some(({ begunAt }) => begunAt === null))
const canCancel = computed(
  () => mailing.value.state !== 'sent' && (waiting.value > 0 || unbegun.value),
)
const lacks = computed(() => plan.answer.value?.problems ?? [])
const minutes = computed(() => {
  const paces = [plan.plan.value.perMinute, mailing.value.pace].filter((one) => one !== null)
  return paces.length ? Math.max(1, Math.ceil(plan.mailed.value / Math.min(...paces))) : null
})
/** What is not usual about how it goes out. */
const planWords = computed(() => {
  const { test, pace, holdout } = plan.plan.value
  return [
    test && `with an A/B test of the ${test.of} on ${Math.round(test.share * 100)}%`,
    pace === 'widening' && 'the keenest first',
    pace === 'best-hour' && 'each at their best hour',
    pace === 'local-time' && 'at the same time on each reader’s clock',
    holdout > 0 && `with ${Math.round(holdout * 100)}% held out`,
  ]
    .filter(Boolean)
    .join(', ')
})
const mailing = computed(() => store.mailing!)
const totals = computed(() => mailing.value.totals)
const waiting = computed(() =>
  totals.value
    ? totals.value.planned + totals.value.queued + totals.value.claimed + totals.value.deferred
    : 0,
)
const all = computed(() =>
  totals.value
    ? waiting.value +
      totals.value.uncertain +
      totals.value.accepted +
      totals.value.failed +
      totals.value.dropped +
      totals.value.bounced +
      totals.value.complained
    : 0,
)
const handed = computed(() =>
  totals.value ? totals.value.accepted + totals.value.bounced + totals.value.complained : 0,
)
const rows = computed(() =>
  totals.value
    ? (
        [
          ['Handed over', handed.value, 'the mail server took it'],
          ['Still to go', totals.value.planned + totals.value.queued, 'in the queue'],
          ['In conversation', totals.value.claimed, 'just now'],
          [
            'Deferred',
            totals.value.deferred,
            'the provider asked to come again; tried for up to two days',
          ],
          ['Refused', totals.value.failed, 'for good'],
          ['Dropped', totals.value.dropped, 'left, were set aside, or the rest was cancelled'],
          ['Uncertain', totals.value.uncertain, 'the conversation broke off before its answer'],
        ] as const
      ).filter(([name, n]) => n > 0 || name === 'Handed over')
    : [],
)

async function act(path: string, body?: object) {
  busy.value = true
  fault.value = ''
  try {
    await store.flush()
    await request(`/api/mailings/${mailing.value.id}/${path}`, { method: 'POST', body })
  } catch (error) {
    fault.value = problemOf(error).message
  }
  await store.refresh()
  busy.value = false
}
async function dispatch() {
  const at = when.value === 'now' ? null : localInputToTime(later.value, session.zone)
  if (when.value === 'later' && at === null) return void (fault.value = 'Write a date and a time.')
  await act('dispatch', { at })
  if (!fault.value) notices.say(at === null ? 'It goes out now.' : `It goes out ${dayAndTime(at)}.`)
}
</script>

<template>
  <div v-if="store.mailing" class="mx-auto max-w-3xl px-6 py-5">
    <h1>Dispatch</h1>
    <template v-if="mailing.started_at === null">
      <p class="muted mt-0.5">
        To <b class="text-ink-900">{{ people(store.eligible) }}</b> as things stand now. Who exactly
        is fixed when it begins.
      </p>
      <dl class="sheet mt-4 grid grid-cols-[110px_1fr] gap-y-1.5 p-4">
        <dt class="muted">Subject</dt>
        <dd class="font-semibold">{{ store.letter?.subject || 'none yet' }}</dd>
        <dt class="muted">From</dt>
        <dd>{{ mailing.sender }}</dd>
        <dt class="muted">To</dt>
        <dd>
          {{ mailing.list ?? 'no list yet'
          }}<template v-if="mailing.joinedWithinDays"
            >, who joined in the last {{ mailing.joinedWithinDays }} days</template
          >
          · {{ people(store.eligible) }}
        </dd>
        <dt class="muted">Proof</dt>
        <dd>
          {{
            store.blockers
              ? `${store.blockers} ${store.blockers === 1 ? 'blocker holds' : 'blockers hold'} it`
              : 'nothing holds it'
          }}
        </dd>
      </dl>
      <template v-if="mailing.state !== 'scheduled'">
        <PaceSettings :plan="plan" />
        <TestSettings :plan="plan" />
        <WorthSettings :plan="plan" />
      </template>
      <div class="sheet mt-4 p-4">
        <template v-if="mailing.state === 'scheduled'">
          <p>
            It goes out <b>{{ dayAndTime(mailing.scheduled_at!) }}</b> to {{ mailing.list
            }}{{ planWords ? `, ${planWords}` : '' }}.
          </p>
          <button class="btn mt-3" :disabled="busy" @click="act('unschedule')">
            Take it back to a draft
          </button>
        </template>
        <template v-else>
          <fieldset class="grid gap-2">
            <legend class="sr-only">When</legend>
            <label class="flex items-center gap-2"
              ><input v-model="when" type="radio" value="now" />Now</label
            >
            <label class="flex items-center gap-2"
              ><input v-model="when" type="radio" value="later" />At a time<input
                v-model="later"
                type="datetime-local"
                class="field field-sm ml-2 w-52"
                aria-label="Time"
                @focus="when = 'later'"
            /></label>
          </fieldset>
          <p v-if="minutes" class="muted small mt-3">
            At this pace it takes about {{ several(minutes, 'minute', 'minutes') }}.
          </p>
          <p v-for="lack in lacks" :key="lack" class="mt-3">
            <MarkDot level="blocker" class="mr-1.5 inline" />{{ lack }}
          </p>
          <p v-if="store.blockers" class="mt-3">
            <MarkDot level="blocker" class="mr-1.5 inline" />{{ store.blockers }}
            {{ store.blockers === 1 ? 'blocker holds' : 'blockers hold' }} it.
            <NuxtLink class="link" :to="`/mail/${mailing.id}/proof`">Open the proof</NuxtLink>
          </p>
          <button
            class="btn btn-go mt-4"
            :disabled="busy || store.blockers > 0 || lacks.length > 0 || !session.sends"
            @click="dispatch"
          >
            {{
              when === 'now'
                ? `Send to ${people(plan.mailed.value)}`
                : `Schedule for ${people(plan.mailed.value)}`
            }}
          </button>
        </template>
        <p v-if="!session.sends" class="fault mt-3">
          No mail server is set, so nothing can go out.
        </p>
      </div>
    </template>
    <template v-else>
      <p class="muted mt-0.5">
        Began {{ dayAndTime(mailing.started_at)
        }}<template v-if="mailing.finished_at">
          · ended {{ dayAndTime(mailing.finished_at) }}</template
        >
      </p>
      <div class="sheet mt-4 p-4">
        <div class="mb-2 flex items-center justify-between">
          <span role="status"
            ><b>{{ count(handed) }}</b> of {{ count(all) }} handed over<template
              v-if="mailing.state === 'held'"
            >
              · {{ mailing.held_by === 'line' ? 'stopped by itself' : 'paused' }}</template
            ></span
          >
          <span class="flex gap-2">
            <button
              v-if="mailing.state === 'sending'"
              class="btn btn-sm"
              :disabled="busy"
              @click="act('pause')"
            >
              Pause
            </button>
            <button
              v-if="mailing.state === 'held'"
              class="btn btn-sm btn-go"
              :disabled="busy"
              @click="act('resume')"
            >
              Resume
            </button>
            <button v-if="canCancel" class="btn btn-sm btn-bad" @click="asking = 'cancel'">
              Cancel the rest
            </button>
          </span>
        </div>
        <ProgressBar label="Dispatch" :done="all - waiting" :total="all" />
        <SendingPace
          v-if="mailing.state === 'sending'"
          :tried="all - waiting"
          :waiting="waiting"
          :later="mailing.later"
        />
        <p
          v-if="mailing.waiting_note"
          class="mt-3 rounded-md border border-warn-600 bg-warn-100 px-3 py-2"
          role="status"
        >
          {{ mailing.waiting_note }}
        </p>
        <p
          v-if="mailing.held_by === 'line'"
          class="mt-3 rounded-md border border-warn-600 bg-warn-100 px-3 py-2"
          role="status"
        >
          {{ mailing.held_note }} Look at the reasons under Results before you resume.
        </p>
      </div>
      <PartsProgress :plan="plan" />
      <div class="sheet mt-4">
        <table class="grid-table">
          <tbody>
            <tr v-for="[name, n, about] in rows" :key="name">
              <td class="w-40">{{ name }}</td>
              <td class="num w-24 font-semibold">{{ count(n) }}</td>
              <td class="muted">{{ about }}</td>
            </tr>
          </tbody>
        </table>
        <div v-if="totals && totals.uncertain > 0" class="border-t border-line-soft p-3.5">
          <button class="btn btn-sm" @click="asking = 'resend'">
            Send once more to the uncertain
          </button>
        </div>
      </div>
      <ProviderAnswers :mailing="mailing.id" />
      <NuxtLink class="btn mt-4" :to="`/mail/${mailing.id}/results`">See results</NuxtLink>
    </template>
    <p v-if="fault" class="fault mt-3" role="alert">{{ fault }}</p>
    <BaseDialog :open="asking === 'cancel'" title="Cancel the rest?" @close="asking = null">
      <p>
        <template v-if="waiting">{{ people(waiting) }} in the queue will not get it.</template>
        <template v-if="unbegun"> The parts that have not begun never will.</template>
        {{ count(handed) }} have it already; that can’t be undone.
      </p>
      <template #actions
        ><button class="btn" @click="asking = null">Go on sending</button
        ><button class="btn btn-bad" @click="((asking = null), act('cancel-rest'))">
          Cancel the rest
        </button></template
      >
    </BaseDialog>
    <BaseDialog :open="asking === 'resend'" title="Send once more?" @close="asking = null">
      <p>
        Of {{ people(totals?.uncertain ?? 0) }} nobody knows whether they have it. Whoever has it
        gets it twice.
      </p>
      <template #actions
        ><button class="btn" @click="asking = null">Leave it</button
        ><button class="btn btn-go" @click="((asking = null), act('resend-uncertain'))">
          Send once more
        </button></template
      >
    </BaseDialog>
  </div>
</template>
