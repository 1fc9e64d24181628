<script setup lang="ts">
import { showFieldValue, type Field, type FieldValue } from '~~/core/people'

interface Person {
  id: number
  address: string
  name: string
  joinedAt: number
  values: Record<string, FieldValue>
  fields: Field[]
  pulse: ('clicked' | 'opened' | 'delivered' | 'not-sent' | 'bounced')[]
  subscriptions: { list_id: number; name: string; state: string; since: number }[]
  tags: string[]
  setAside: { at: number; reason: string; detail: string } | null
  evidence: {
    at: number
    state: string
    way: string
    way_ref: string | null
    list: string
    wording: string | null
  }[]
  mailings: {
    id: number
    name: string
    state: string
    at: number
    opened_at: number | null
    clicked_at: number | null
    left_at: number | null
    answer: string | null
  }[]
}
const route = useRoute()
const { date, dayAndTime } = useTimes()
const { answer: person, problem } = useAnswer<Person>(
  () => `/api/people/${String(route.params.id)}`,
)
function shown(field: Field) {
  const value = showFieldValue(person.value?.values[field.key])
  return field.kind === 'date' && value ? date(Date.parse(`${value}T12:00:00Z`)) : value
}
function fate(mailing: Person['mailings'][number]) {
  const acts = [
    mailing.opened_at && 'opened',
    mailing.clicked_at && 'clicked',
    mailing.left_at && 'left the list',
  ].filter(Boolean)
  return acts.length
    ? acts.join(', ')
    : mailing.state === 'accepted'
      ? 'delivered'
      : [mailing.state, mailing.answer].filter(Boolean).join(': ')
}
</script>

<template>
  <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
  <div v-else-if="person">
    <div class="flex items-start justify-between">
      <div>
        <h1>{{ person.name || person.address }}</h1>
        <p class="muted mt-0.5">{{ person.address }} · on file since {{ date(person.joinedAt) }}</p>
      </div>
      <div class="text-right">
        <PulseBars :bars="person.pulse" />
        <div class="muted small">last 12 mailings</div>
      </div>
    </div>
    <p v-if="person.setAside" class="mt-3 rounded-md border border-bad-600 bg-bad-100 px-3 py-2">
      <b>Set aside</b> {{ date(person.setAside.at) }}: {{ person.setAside.detail }} This person is
      never mailed.
    </p>
    <div class="mt-4 grid grid-cols-[1fr_1fr] gap-4">
      <div class="sheet">
        <div class="sheet-head"><h2>Known</h2></div>
        <dl class="grid grid-cols-[140px_1fr] gap-y-1.5 p-3.5">
          <template v-for="field in person.fields" :key="field.key"
            ><dt class="muted">{{ field.name }}</dt>
            <dd>{{ shown(field) || '—' }}</dd></template
          >
          <dt class="muted">Tags</dt>
          <dd>
            <span v-for="tag in person.tags" :key="tag" class="tag mr-1">{{ tag }}</span><template
              v-if="!person.tags.length"
              >—</template
            >
          </dd>
        </dl>
      </div>
      <div class="sheet">
        <div class="sheet-head"><h2>Subscriptions</h2></div>
        <table class="grid-table">
          <tbody>
            <tr v-for="one in person.subscriptions" :key="one.list_id">
              <td>{{ one.name }}</td>
              <td>{{ one.state }}</td>
              <td class="num muted">{{ date(one.since) }}</td>
            </tr>
          </tbody>
        </table>
        <h3 class="px-3.5 pt-3">Evidence</h3>
        <ul class="max-h-44 overflow-auto px-3.5 pt-1 pb-3" tabindex="0" aria-label="Evidence">
          <li v-for="(one, i) in person.evidence" :key="i" class="small py-1">
            {{ dayAndTime(one.at) }} · {{ one.list }}: <b>{{ one.state }}</b> by {{ one.way
            }}<span v-if="one.wording" class="muted"> · “{{ one.wording }}”</span>
          </li>
        </ul>
      </div>
    </div>
    <div class="sheet mt-4">
      <div class="sheet-head">
        <h2>Mail</h2>
        <span class="small muted">last {{ person.mailings.length }}</span>
      </div>
      <p v-if="!person.mailings.length" class="muted p-4">
        Nothing has been sent to this person yet.
      </p>
      <table v-else class="grid-table">
        <tbody>
          <tr v-for="mailing in person.mailings" :key="mailing.id">
            <td>
              <NuxtLink :to="`/results/${mailing.id}`" class="link">{{ mailing.name }}</NuxtLink>
            </td>
            <td>{{ fate(mailing) }}</td>
            <td class="num muted">{{ dayAndTime(mailing.at) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>
