<script setup lang="ts">
import {
  mailingsOfStep,
  MOST_DRAWN,
  restOf,
  wayName,
  type Drawn,
  type Judged,
  type MailStep,
} from '~~/core/sequences'
import { totalOf } from '~~/core/counting'

/** The versions of a mail that are tried: each a letter of its own, to its share of those who come by. */
const props = defineProps<{ id: string; step: MailStep }>()
const store = useSequence()
const versions = computed(() => props.step.versions ?? [])
const rows = computed(() =>
  mailingsOfStep(props.step).map((id) => {
    const mail = store.sequence!.mailings.find((one) => one.id === id)
    return { id, mail, sent: totalOf(mail ?? {}, 'delivered') }
  }),
)
const busy = ref(false)
async function add() {
  busy.value = true
  await store.addVersion(props.id)
  busy.value = false
}
const setShares = (drawn: Drawn[]) =>
  void store.changeStep(props.id, {
    ...props.step,
    versions: versions.value.map((one, n) => ({ ...one, share: drawn[n]!.share })),
  })
function judge(judged: Judged | undefined) {
  const { judged: _, ...rest } = props.step
  void store.changeStep(props.id, { ...rest, ...(judged && { judged }) })
}
const kinds = { opened: 'opened it', clicked: 'clicked in it' }
</script>

<template>
  <section class="mt-4" aria-label="Versions">
    <fieldset class="grid min-w-0 grid-cols-[minmax(0,1fr)] gap-2" :disabled="!store.canChange">
      <ul v-if="versions.length" class="grid list-none grid-cols-[minmax(0,1fr)] gap-2 p-0">
        <li
          v-for="({ id: mailing, mail, sent }, n) in rows"
          :key="mailing"
          class="grid grid-cols-[minmax(0,1fr)] gap-1.5 border-t border-line-soft pt-2"
        >
          <div class="flex items-baseline gap-2">
            <b class="w-4">{{ wayName(n) }}</b>
            <NuxtLink
              v-if="mail"
              class="link min-w-0 flex-1 truncate"
              :to="`/mail/${mailing}/letter`"
              >{{ mail.subject || mail.name }}</NuxtLink><span v-else class="fault flex-1"
              >This letter is gone.</span
            >
          </div>
          <div class="flex items-center gap-2 pl-6">
            <span v-if="n === 0" class="w-20 pr-6 text-right">{{
              restOf(versions) / 10
            }}</span><ShareField v-else :drawn="versions" :n="n - 1" @change="setShares" /><span
              class="flex-1"
              >% <span v-if="sent" class="muted small">{{ count(sent) }} sent</span></span
            >
            <button
              v-if="store.canChange"
              type="button"
              class="btn btn-sm"
              :aria-label="`Remove version ${wayName(n)}`"
              @click="store.removeVersion(id, n)"
            >
              Remove
            </button>
          </div>
        </li>
      </ul>
      <div v-if="store.canChange && versions.length < MOST_DRAWN" class="grid gap-1">
        <button type="button" class="btn btn-sm justify-self-start" :disabled="busy" @click="add">
          {{ versions.length ? 'Another version' : 'Try another version' }}
        </button>
        <p v-if="!versions.length" class="muted small">
          A copy of the letter to say it otherwise in: by lot, people get one or the other.
        </p>
      </div>
      <JudgedSettings
        v-if="versions.length"
        :judged="step.judged"
        what="versions"
        since="of getting it"
        :kinds="kinds"
        @change="judge"
      />
    </fieldset>
  </section>
</template>
