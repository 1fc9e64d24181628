<script setup lang="ts">
import { proposeSubjects } from '~~/core/letters/wording'
import { subjectLength, subjectTraits, type SubjectEffect } from '~~/core/results'

/** The subject as it stands in an inbox, where mail programs cut it, and what one's own mailings say about such subjects. */
const store = useMailing()
const session = useSession()
const { answer } = useAnswer<{ mailings: number; effects: SubjectEffect[] }>(
  () => '/api/mailings/subject-effects',
  { live: false },
)
const subject = computed(() => store.letter!.subject)
const length = computed(() => subjectLength(subject.value))
/** About so many letters are shown. */
const cuts = [
  { name: 'on a telephone', at: 38 },
  { name: 'in a list beside the mail', at: 50 },
  { name: 'over the whole width', at: 70 },
]
const cut = computed(() => cuts.filter(({ at }) => length.value > at))
/** Fill-ins as their fallback, or as a name would be. */
const shown = (text: string) =>
  text.replace(/\{\{([^{}]*)\}\}/g, (_, expression: string) => {
    const fallback = /default:\s*"([^"]*)"/.exec(expression)?.[1]
    return fallback ?? 'Tamsin'
  })
const effects = computed(() =>
  (answer.value?.effects ?? []).filter(({ trait }) =>
    subjectTraits.find(({ key }) => key === trait)?.has(subject.value),
  ),
)
const points = (share: number) => `${share < 0 ? '−' : '+'}${Math.abs(share * 100).toFixed(1)}`
function inWords({ effect, low, high }: SubjectEffect) {
  const spread = `±${(((high - low) / 2) * 100).toFixed(1)}`
  return low > 0 || high < 0
    ? `${points(effect)} points opened (${spread})`
    : `no clear difference (${points(effect)} points, ${spread})`
}
const proposals = computed(() => proposeSubjects(store.letter!).slice(0, 5))
const others = [
  ['Harbour Tide Tables', 'Tomorrow: high water 06:41', 'and again at 19:02'],
  ['Orrin Library', 'Your books are due on Friday', 'You can keep them longer'],
] as const
</script>

<template>
  <section class="border-b border-line px-3.5 py-3 text-[12.5px]">
    <div class="flex flex-wrap items-center justify-between">
      <h2>Subject</h2>
      <EmojiPicker @choose="store.setSubject(`${subject} ${$event}`.trim())" />
    </div>
    <p class="mt-1">
      {{ several(length, 'character', 'characters')
      }}<template v-if="cut.length">; cut {{ cut.map(({ name }) => name).join(', ') }}</template
      >.
    </p>
    <p v-for="one in effects" :key="one.trait" class="muted mt-1">
      With {{ one.name }}: {{ inWords(one) }}, {{ one.withIt }} of your mailings against
      {{ one.without }}.
    </p>
    <p v-if="answer && !answer.effects.length" class="muted mt-1">
      Too few mailings have gone out to say what your readers like.
    </p>
    <ul class="m-0 mt-2 list-none rounded border border-line p-0" aria-label="In an inbox">
      <li
        v-for="([from, line, more], i) in [
          others[0],
          [
            session.account?.name ?? '',
            shown(subject) || 'No subject',
            shown(store.letter!.previewText),
          ] as const,
          others[1],
        ]"
        :key="i"
        class="border-b border-line-soft px-2 py-1 last:border-0"
        :class="i === 1 ? 'bg-brass-100' : 'text-ink-500'"
      >
        <span class="block truncate" :class="i === 1 && 'font-semibold'">{{ from }}</span>
        <span class="block truncate"
          >{{ line }} <span :class="i === 1 && 'text-ink-700'">{{ more }}</span></span
        >
      </li>
    </ul>
    <template v-if="proposals.length">
      <h3 class="mt-3 font-[600]">From the letter’s own words</h3>
      <ul class="m-0 mt-1 list-none p-0" aria-label="Proposals">
        <li v-for="one in proposals" :key="one.subject">
          <button
            type="button"
            class="block w-full rounded px-1 py-1 text-left hover:bg-canvas-50"
            :title="`Take it: ${one.why}`"
            @click="store.setSubject(one.subject)"
          >
            {{ one.subject }} <span class="muted">· {{ one.why }}</span>
          </button>
        </li>
      </ul>
    </template>
  </section>
</template>
