<script setup lang="ts">
import { recipientsOf, totalOf } from '~~/core/counting'
import { planFieldWords } from '~/components/dispatch/plan-words'
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
/** The time that is chosen, ms; null for now, and while what is written is no time. */
const chosenTime = computed(() =>
  when.value === 'now' ? null : localInputToTime(later.value, session.zone),
)
/** Later is chosen, and when is not known. */
const timeless = computed(() => when.value === 'later' && chosenTime.value === null)
const { now: happening, waits, reload: askAgain } = useHappening(() => chosenTime.value)
/** Whether somebody may still get it later: the rest of a test, or the next tier. */
const unbegun = computed(() => !!plan.answer.value?.parts.some(({ begunAt }) => begunAt === null))
const canCancel = computed(
  () => mailing.value.state !== 'sent' && (waiting.value > 0 || unbegun.value),
)
const lacks = computed(() => happening.value?.problems ?? [])
const takes = computed(() => {
  const long = happening.value?.takes
  if (!long) return null
  return `It takes ${lasting(long.ms)} from its beginning${long.waits ? ', and the time until you decide the test' : ''}.`
})
/** Why it can't be sent off just now, in words; null where it can. */
const holds = computed(() => {
  if (!session.sends) return 'No mail server is set, so nothing can go out.'
  if (timeless.value) return 'Write a day and a time.'
  if (waits.value) return waits.value
  if (store.proofState === 'unknown') return store.proofProblem ?? 'The proof has not answered yet.'
  return null
})
const mailing = computed(() => store.mailing!)
const totals = computed(() => mailing.value.totals)
const waiting = computed(() => (totals.value ? totalOf(totals.value, 'waiting') : 0))
const all = computed(() => (totals.value ? recipientsOf(totals.value) : 0))
const handed = computed(() =>
  totals.value ? totals.value.accepted + totals.value.bounced + totals.value.complained : 0,
)
const rows = computed(() =>
  totals.value
    ? (
        [
          ['Handed over', handed.value, 'the mail server took it'],
          ['Still to go', totals.value.queued, 'in the queue'],
          ['In conversation', totals.value.claimed, 'just now'],
          [
            'Deferred',
            totals.value.deferred,
            'the provider asked to come again; tried for up to two days',
          ],
          ['Refused', totals.value.failed, 'for good'],
          [
            'Dropped',
            totals.value.dropped,
            'unsubscribed, were suppressed, or the rest was cancelled',
          ],
          ['Uncertain', totals.value.uncertain, 'the conversation broke off before its answer'],
        ] as const
      ).filter(([name, n]) => n > 0 || name === 'Handed over')
    : [],
)

async function tell(path: string, body?: object): Promise<boolean> {
  busy.value = true
  fault.value = ''
  try {
    await changeAt(`/api/mailings/${mailing.value.id}/${path}`, { method: 'POST', body })
  } catch (error) {
    fault.value = problemOf(error).message
  }
  await store.refresh()
  busy.value = false
  return !fault.value
}
/** Sends it off as it is shown: the server is told what that was, and refuses where it is not so any more. */
async function dispatch() {
  const shown = happening.value
  if (holds.value || !shown?.fingerprint) return
  const at = chosenTime.value
  const unsaved = await useUnsaved().settle(`/api/mailings/${mailing.value.id}`)
  if (unsaved) return void (fault.value = unsaved)
  if (!(await tell('dispatch', { at, seen: shown.fingerprint }))) return askAgain()
  if (at !== null) notices.say(`It goes out ${dayAndTime(at)}.`)
}
/** How long it can still be called back, seconds; counted here from what the server said last. */
const callback = ref(0)
let counting: ReturnType<typeof setInterval> | undefined
watch(
  () => store.mailing,
  (now) => {
    clearInterval(counting)
    const end = performance.now() + (now?.callbackMs ?? 0)
    const step = () => (callback.value = Math.max(0, Math.ceil((end - performance.now()) / 1_000)))
    if (step() > 0)
      counting = setInterval(() => {
        if (step() === 0) clearInterval(counting)
      }, 250)
  },
  { immediate: true },
)
onUnmounted(() => clearInterval(counting))
/** "Tuesday 1 December 09:00" as on a wall, on whichever clock. */
const wishWords = computed(() => {
  const { wish, localTime, scheduled_at } = mailing.value
  if (!wish || !localTime) return dayAndTime(scheduled_at!)
  const on = dayAndTime(localInputToTime(wish, session.zone)!)
  return `${on} on each reader’s own clock, the first of them ${dayAndTime(scheduled_at!)}`
})
const describe = (field: string, value: unknown) => planFieldWords(field, value)
</script>

<template>
  <div v-if="store.mailing" class="mx-auto max-w-3xl px-6 py-5">
    <h1>Dispatch</h1>
    <template v-if="mailing.started_at === null">
      <p class="muted mt-0.5">
        <template v-if="happening?.happening"
          >To <b class="text-ink-900">{{ people(happening.happening.mailed) }}</b><template
            v-if="happening.happening.heldOut"
            >: {{ people(happening.happening.eligible) }} may get it,
            {{ count(happening.happening.heldOut) }} are in the control group, drawn by
            lot</template
          >. Who exactly is fixed when it begins.</template
        ><template v-else>{{ waits }}</template>
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
        </dd>
        <dt class="muted">Proof</dt>
        <dd><ProofWord /></dd>
      </dl>
      <template v-if="mailing.state !== 'scheduled'">
        <template v-if="plan.known.value">
          <SenderSettings :plan="plan" />
          <PaceSettings :plan="plan" />
          <TestSettings :plan="plan" :happening="happening" />
          <WorthSettings :plan="plan" :happening="happening" />
          <div class="mt-2 empty:hidden">
            <KeptState :keeper="plan.keeper.value!" :describe="describe" />
          </div>
        </template>
        <p v-else-if="plan.problem.value" class="fault mt-4" role="alert">
          {{ plan.problem.value }}
          <button class="btn btn-sm ml-2" @click="plan.reload()">Try again</button>
        </p>
        <p v-else class="muted sheet mt-4 p-4" role="status">Asking how it is to go out…</p>
      </template>
      <div class="sheet mt-4 p-4">
        <template v-if="mailing.state === 'scheduled'">
          <template v-if="callback > 0">
            <p class="font-head text-[16px] font-[640]" role="timer" aria-live="off">
              Nothing has gone out. You can call it back for
              {{ several(callback, 'second', 'seconds') }}.
            </p>
            <p class="mt-1">{{ mailing.name }}, to {{ mailing.list }}: {{ wishWords }}.</p>
            <button
              v-may="'POST /api/mailings/[id]/unschedule'"
              class="btn btn-go mt-3"
              :disabled="busy"
              @click="tell('unschedule')"
            >
              Call it back
            </button>
          </template>
          <template v-else>
            <p>
              It goes out <b>{{ wishWords }}</b> to {{ mailing.list }}.
            </p>
            <button
              v-may="'POST /api/mailings/[id]/unschedule'"
              class="btn mt-3"
              :disabled="busy"
              @click="tell('unschedule')"
            >
              Make it a draft again
            </button>
          </template>
        </template>
        <template v-else>
          <fieldset class="grid gap-2">
            <legend class="sr-only">When</legend>
            <label class="flex items-center gap-2"
              ><input v-model="when" type="radio" value="now" />Now</label
            >
            <span class="flex items-baseline gap-4"
              ><label class="flex items-center gap-2"
                ><input v-model="when" type="radio" value="later" />{{
                  plan.plan.value?.pace === 'local-time'
                    ? 'At a time on each reader’s clock'
                    : 'At a time'
                }}</label
              ><DateField
                v-model="later"
                time
                class="field field-sm !w-48"
                aria-label="Time"
                @input="when = 'later'"
                @taken="when = 'later'"
            /></span>
          </fieldset>
          <p v-for="lack in lacks" :key="lack" class="mt-3">
            <MarkDot level="blocker" class="mr-1.5 inline" />{{ lack }}
          </p>
          <p v-if="store.proofState !== 'free'" class="mt-3 flex items-baseline gap-2">
            <ProofWord />
            <NuxtLink class="link" :to="`/mail/${mailing.id}/proof`">Open the proof</NuxtLink>
          </p>
          <div class="mt-4 border-l-2 border-dashed border-brass-500 pl-3" aria-live="polite">
            <p v-if="timeless" class="muted">
              Write a day and a time, and it is said here what will happen.
            </p>
            <p v-else-if="happening?.sentence" class="font-[560]">{{ happening.sentence }}</p>
            <p v-else-if="happening" class="muted">
              Choose a list, and it is said here what will happen.
            </p>
            <p v-else class="muted">{{ waits }}</p>
            <p v-if="takes && !timeless" class="muted small mt-1">{{ takes }}</p>
          </div>
          <button
            v-may="'POST /api/mailings/[id]/dispatch'"
            class="btn btn-go mt-4"
            :disabled="
              busy ||
              holds !== null ||
              !happening?.sentence ||
              store.blockers > 0 ||
              lacks.length > 0
            "
            @click="dispatch"
          >
            {{ when === 'now' ? 'Send' : 'Schedule'
            }}{{
              happening?.happening
                ? `${when === 'now' ? ' to' : ' for'} ${people(happening.happening.mailed)}`
                : ''
            }}
          </button>
          <p
            v-if="holds && holds !== waits"
            class="mt-2"
            :class="session.sends ? 'muted small' : 'fault'"
            role="status"
          >
            {{ holds }}
          </p>
        </template>
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
              · {{ mailing.held_by === 'hand' ? 'paused' : 'stopped by itself' }}</template
            ></span
          >
          <span class="flex gap-2">
            <button
              v-if="mailing.state === 'sending'"
              v-may="'POST /api/mailings/[id]/pause'"
              class="btn btn-sm"
              :disabled="busy"
              @click="tell('pause')"
            >
              Pause
            </button>
            <button
              v-if="mailing.state === 'held'"
              v-may="'POST /api/mailings/[id]/resume'"
              class="btn btn-sm btn-go"
              :disabled="busy"
              @click="tell('resume')"
            >
              Resume
            </button>
            <button
              v-if="canCancel"
              v-may="'POST /api/mailings/[id]/cancel-rest'"
              class="btn btn-sm btn-bad"
              @click="asking = 'cancel'"
            >
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
          v-if="mailing.held_by === 'line' || mailing.held_by === 'fault'"
          class="mt-3 rounded-md border border-warn-600 bg-warn-100 px-3 py-2"
          role="status"
        >
          {{ mailing.held_note }}
          <template v-if="mailing.held_by === 'line'"
            >Look at the reasons under Results before you resume.</template
          >
        </p>
      </div>
      <PartsProgress v-if="plan.known.value" :plan="plan" />
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
          <button
            v-may="'POST /api/mailings/[id]/resend-uncertain'"
            class="btn btn-sm"
            @click="asking = 'resend'"
          >
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
        ><button class="btn btn-bad" @click="((asking = null), tell('cancel-rest'))">
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
        ><button class="btn btn-go" @click="((asking = null), tell('resend-uncertain'))">
          Send once more
        </button></template
      >
    </BaseDialog>
  </div>
</template>
