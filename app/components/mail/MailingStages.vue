<script setup lang="ts">
import { recipientsOf } from '~~/core/counting'
/** The stages of a mailing in a line, in any order, each saying its state; to whom and when is its sequence's where it has one. */
const store = useMailing()
const route = useRoute()
const { at } = useTimes()
const stages = computed(() => {
  const mailing = store.mailing!
  const begun = mailing.started_at !== null
  const cautions = store.marks?.length ?? 0
  return [
    {
      name: 'Audience',
      path: 'audience',
      about: count(begun ? sentTo() : store.eligible),
      state: store.eligible > 0 || begun ? 'ok' : 'bad',
    },
    {
      name: 'Letter',
      path: 'letter',
      about: '',
      state: store.subject.trim() ? 'ok' : 'open',
    },
    {
      name: 'Proof',
      path: 'proof',
      about: begun
        ? ''
        : store.blockers
          ? `${store.blockers} ${store.blockers === 1 ? 'blocker' : 'blockers'}`
          : store.proofState === 'unknown'
            ? 'not known yet'
            : cautions
              ? `${cautions} to look at`
              : 'clear',
      state: begun
        ? 'ok'
        : store.blockers
          ? 'bad'
          : store.proofState === 'unknown'
            ? 'unknown'
            : 'ok',
    },
    {
      name: 'Dispatch',
      path: 'dispatch',
      about:
        mailing.state === 'scheduled'
          ? at(mailing.scheduled_at!).toFormat('ccc d LLL HH:mm')
          : begun
            ? mailing.state
            : '',
      state: begun || mailing.state === 'scheduled' ? 'ok' : 'open',
    },
    { name: 'Results', path: 'results', about: '', state: begun ? 'ok' : 'open' },
  ].filter(({ path }) => !mailing.sequence || (path !== 'audience' && path !== 'dispatch'))
})
function sentTo() {
  const totals = store.mailing?.totals
  return totals ? recipientsOf(totals) : 0
}
</script>

<template>
  <nav class="flex items-center" aria-label="Stages">
    <template v-for="(stage, i) in stages" :key="stage.path">
      <span
        v-if="i"
        class="w-5 border-t-2"
        :class="
          stages[i - 1]!.state === 'ok'
            ? 'border-solid border-canvas-700'
            : 'border-dashed border-canvas-300'
        "
      />
      <NuxtLink
        :to="`/mail/${store.mailing!.id}/${stage.path}`"
        class="flex items-center gap-1.5 rounded-[5px] px-2.5 py-1"
        :class="
          route.path.endsWith(stage.path)
            ? 'bg-canvas-100 font-semibold'
            : 'text-ink-700 hover:bg-canvas-50'
        "
        :aria-current="route.path.endsWith(stage.path) ? 'step' : undefined"
      >
        <svg width="11" height="11" viewBox="0 0 11 11" aria-hidden="true">
          <rect
            v-if="stage.state === 'bad'"
            x="1"
            y="1"
            width="9"
            height="9"
            rx="2"
            fill="#a5371f"
          />
          <circle
            v-else
            cx="5.5"
            cy="5.5"
            r="4.5"
            :fill="stage.state === 'ok' ? '#4b5a28' : 'none'"
            :stroke="stage.state === 'ok' ? '#4b5a28' : '#667064'"
            stroke-width="1.5"
            :stroke-dasharray="stage.state === 'unknown' ? '2.4 2.2' : undefined"
          />
        </svg>
        {{ stage.name
        }}<span
          v-if="stage.about"
          class="small font-normal"
          :class="stage.state === 'bad' ? 'text-bad-600' : 'muted'"
          >{{ stage.about }}</span
        >
      </NuxtLink>
    </template>
  </nav>
</template>
