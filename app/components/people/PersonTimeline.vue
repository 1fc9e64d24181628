<script setup lang="ts">
import type { Person } from './person'

/** Everything about a person in one line of time. */
const props = defineProps<{ person: Person }>()
const { dayAndTime } = useTimes()

/** By which way somebody came to a list, or left it; of a sign-up's form also on which page it stood. */
function byWay({ way, way_ref, page }: Person['evidence'][number]): string {
  if (way === 'form' && way_ref) return `by the form “${way_ref}”${page ? ` on ${page}` : ''}`
  return way.startsWith('by ') ? way : `by ${way}`
}

/** Which time it is, where it is not the first. */
const time = (round: number) => (round > 0 ? `, time ${round + 1}` : '')

/** One line of time: mail, orders, events, consent and notes, the latest first. */
const line = computed(() => {
  const of = props.person
  const items = [
    ...of.mailings.flatMap((mailing) => [
      {
        at: mailing.at,
        kind: 'mail',
        words: `${mailing.name}${time(mailing.round)}: ${[mailing.state, mailing.answer].filter(Boolean).join(', ')}`,
        to: `/results/${mailing.id}`,
      },
      ...(mailing.opened_at
        ? [{ at: mailing.opened_at, kind: 'read', words: `opened ${mailing.name}`, to: null }]
        : []),
      ...(mailing.clicked_at
        ? [{ at: mailing.clicked_at, kind: 'click', words: `clicked in ${mailing.name}`, to: null }]
        : []),
    ]),
    ...of.orders.map((order) => ({
      at: order.at,
      kind: 'order',
      words: `${order.number}, ${money(order.money, of.currency)}: ${order.items.map(({ name, quantity }) => (quantity > 1 ? `${quantity} × ${name}` : name)).join(', ')}`,
      to: null,
    })),
    ...of.events.map((event) => ({
      at: event.at,
      kind: 'event',
      words: `${event.name}: ${Object.values(JSON.parse(event.props) as object).join(', ')}`,
      to: null,
    })),
    ...of.evidence.map((one) => ({
      at: one.at,
      kind: 'consent',
      words: `${one.state} on ${one.list} ${byWay(one)}${one.wording ? ` · “${one.wording}”` : ''}`,
      to: null,
    })),
    ...of.sequences.flatMap((one) => {
      const to = `/sequences/${one.id}`
      const came = {
        at: one.entered_at,
        kind: 'sequence',
        words: `came into ${one.name}${time(one.round)}`,
        to,
      }
      if (one.ended_at === null) return [came]
      const words =
        one.state === 'left'
          ? `left ${one.name}: ${one.why}`
          : one.why === 'goal'
            ? `reached the goal of ${one.name}`
            : `finished ${one.name}`
      return [came, { at: one.ended_at, kind: 'sequence', words, to }]
    }),
    ...of.ownChanges.map((one) => ({
      at: one.at,
      kind: 'own page',
      words: `${one.detail} · “${one.wording}”`,
      to: null,
    })),
    ...of.replies.map((one) => ({
      at: one.at,
      kind: 'reply',
      words: `${one.subject}: ${one.text.slice(0, 200)}`,
      to: null,
    })),
    ...of.notes.map((one) => ({
      at: one.at,
      kind: 'note',
      words: `${one.by_name}: ${one.text}`,
      to: null,
    })),
    ...of.tasks.flatMap(({ by, at, text, done }) => [
      { at, kind: 'task', words: `${by}: ${text}`, to: null },
      ...(done
        ? [{ at: done.at, kind: 'task', words: `done by ${done.by}: ${text}`, to: null }]
        : []),
    ]),
    { at: of.joinedAt, kind: 'joined', words: 'came on file', to: null },
  ]
  return items.sort((a, b) => b.at - a.at)
})
const shownKind = ref('')
const kinds = computed(() => [...new Set(line.value.map(({ kind }) => kind))])
const shownLine = computed(() =>
  line.value.filter(({ kind }) => !shownKind.value || kind === shownKind.value).slice(0, 120),
)
</script>

<template>
  <section class="sheet">
    <div class="sheet-head">
      <h2>Everything, in time</h2>
      <span class="flex items-center gap-3">
        <span v-if="person.orders.length" class="muted small"
          >{{ several(person.orders.length, 'order', 'orders') }},
          {{ money(person.spent, person.currency) }}</span
        >
        <select v-model="shownKind" class="chip" aria-label="Show">
          <option value="">all kinds</option>
          <option v-for="kind in kinds" :key="kind">{{ kind }}</option>
        </select>
      </span>
    </div>
    <table class="grid-table">
      <tbody>
        <tr v-for="(one, i) in shownLine" :key="i">
          <td class="muted w-40">{{ dayAndTime(one.at) }}</td>
          <td class="muted w-20">{{ one.kind }}</td>
          <td>
            <NuxtLink v-if="one.to" :to="one.to" class="link">{{ one.words }}</NuxtLink><template
              v-else
              >{{ one.words }}</template
            >
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
