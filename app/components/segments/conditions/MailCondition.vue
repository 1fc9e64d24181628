<script setup lang="ts">
import { asksWhoWasSent, type ConditionOf, type MailAct, type WhichMail } from '~~/core/segments'

const props = defineProps<{ condition: ConditionOf<'mail'> }>()
const emit = defineEmits<{ change: [condition: ConditionOf<'mail'>] }>()
const { set, valueOf, vocabulary } = conditionChips<'mail'>(props, emit)
const links = computed(() => {
  const { of } = props.condition
  return of.which === 'mailing'
    ? vocabulary.value.links.filter(({ mailingId }) => mailingId === of.id)
    : []
})
const verbs: Record<MailAct, string> = {
  opened: 'Opened',
  clicked: 'Clicked',
  replied: 'Replied to',
  sent: 'Was sent',
  delivered: 'Received',
  bounced: 'Bounced on',
  complained: 'Complained about',
  left: 'Unsubscribed by',
}

function choose(value: string) {
  set({ of: mailNamed(value) })
}
function mailNamed(value: string): WhichMail {
  if (value === 'any' || value === 'apart' || value === 'in-sequences') return { which: value }
  if (value === 'last') return { which: 'last', n: 5 }
  return value.startsWith('sequence ')
    ? { which: 'sequence', id: Number(value.slice(9)) }
    : { which: 'mailing', id: Number(value), link: null }
}
/** All of the last five stays all of the last seven. */
function chooseLast(n: number) {
  const { times, of } = props.condition
  if (of.which !== 'last') return
  const all = times.is === 'at-least' && times.n === of.n
  set({ of: { which: 'last', n }, times: all ? { ...times, n } : times })
}
function nameOf(of: WhichMail) {
  if (of.which === 'mailing') return String(of.id)
  return of.which === 'sequence' ? `sequence ${of.id}` : of.which
}
</script>

<template>
  <select
    class="chip chip-subject"
    aria-label="What they did"
    :value="condition.did"
    @change="set({ did: valueOf($event) })"
  >
    <option v-for="(words, did) in verbs" :key="did" :value="did">{{ words }}</option>
  </select>
  <TimesChips
    v-if="condition.of.which === 'last'"
    :times="condition.times"
    :of="condition.of.n"
    @change="(times) => set({ times, orUnsent: undefined })"
  />
  <select
    class="chip"
    aria-label="Which mailing"
    :value="nameOf(condition.of)"
    @change="choose(valueOf($event))"
  >
    <option value="any">any mailing</option>
    <option value="last">the last</option>
    <option value="apart">any mailing outside sequences</option>
    <option value="in-sequences">any mailing of any sequence</option>
    <option v-for="one in vocabulary.sequences" :key="one.id" :value="`sequence ${one.id}`">
      any of “{{ one.name }}”
    </option>
    <option v-for="mailing in vocabulary.mailings" :key="mailing.id" :value="mailing.id">
      “{{ mailing.name }}”
    </option>
  </select>
  <template v-if="condition.of.which === 'last'">
    <KeptInput
      class="chip w-14 text-right"
      type="number"
      min="1"
      max="1000"
      aria-label="How many mailings"
      :value="condition.of.n"
      @taken="Number($event) >= 1 && chooseLast(Math.min(1_000, Math.round(Number($event))))"
    />
    <span>{{ condition.of.n === 1 ? 'mailing' : 'mailings' }}</span>
  </template>
  <select
    v-if="condition.of.which === 'mailing' && condition.did === 'clicked' && links.length"
    class="chip"
    aria-label="Link"
    :value="condition.of.link ?? ''"
    @change="
      set({
        of: { ...condition.of, link: valueOf($event) === '' ? null : Number(valueOf($event)) },
      })
    "
  >
    <option value="">any link</option>
    <option v-for="link in links" :key="link.no" :value="link.no">
      {{ link.words || link.url }}
    </option>
  </select>
  <TimesChips
    v-if="condition.of.which !== 'mailing' && condition.of.which !== 'last'"
    :times="condition.times"
    @change="(times) => set({ times, orUnsent: undefined })"
  />
  <WithinChip :days="condition.withinDays" @change="(withinDays) => set({ withinDays })" />
  <select
    v-if="asksWhoWasSent({ ...condition, orUnsent: undefined })"
    class="chip"
    aria-label="Who was sent none of them"
    :value="condition.orUnsent ? 'in' : 'out'"
    @change="set({ orUnsent: valueOf($event) === 'in' ? true : undefined })"
  >
    <option value="out">of those who were sent one</option>
    <option value="in">or was sent none</option>
  </select>
</template>
