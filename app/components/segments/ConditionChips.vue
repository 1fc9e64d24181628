<script setup lang="ts">
import {
  asksWhoWasSent,
  families,
  type Comparison,
  type Condition,
  type MailAct,
  type TimeComparison,
  type WhichMail,
} from '~~/core/segments'
import { tiers, type Tier } from '~~/core/standing'

/** One condition as a sentence whose words can be changed. */
const props = defineProps<{ condition: Condition }>()
const emit = defineEmits<{ change: [condition: Condition] }>()
const store = useSegment()
const vocabulary = computed(() => store.vocabulary)
const values = ref<{ value: string; n: number }[]>([])
const field = computed(() =>
  props.condition.kind === 'field'
    ? vocabulary.value?.fields.find(({ key }) => key === (props.condition as { key: string }).key)
    : undefined,
)
const links = computed(() => {
  const { condition } = props
  if (condition.kind !== 'mail' || condition.of.which !== 'mailing') return []
  const { id } = condition.of
  return vocabulary.value?.links.filter(({ mailingId }) => mailingId === id) ?? []
})
const mailVerbs: Record<MailAct, string> = {
  opened: 'Opened',
  clicked: 'Clicked',
  sent: 'Was sent',
  delivered: 'Received',
  bounced: 'Bounced on',
  complained: 'Complained about',
  left: 'Unsubscribed by',
}
const states = { subscribed: 'On list', pending: 'Pending on list', unsubscribed: 'Left list' }
const standings = {
  inside: 'Inside sequence',
  finished: 'Finished sequence',
  never: 'Never in sequence',
}
const domains = computed(() =>
  (vocabulary.value?.domains ?? []).map(({ domain, n }) => ({ value: domain, n })),
)

async function look() {
  if (props.condition.kind !== 'field' || values.value.length) return
  const path = `/api/segments/values?field=${props.condition.key}`
  values.value = await request<typeof values.value>(path).catch(() => [])
}
function set(change: object) {
  emit('change', { ...props.condition, ...change } as Condition)
}
function chooseMail(value: string) {
  const of: WhichMail =
    value === 'any'
      ? { which: 'any' }
      : value === 'last'
        ? { which: 'last', n: 5 }
        : value.startsWith('sequence ')
          ? { which: 'sequence', id: Number(value.slice(9)) }
          : { which: 'mailing', id: Number(value), link: null }
  set({ of })
}
/** All of the last five stays all of the last seven. */
function chooseLast(n: number) {
  if (props.condition.kind !== 'mail' || props.condition.of.which !== 'last') return
  const { times, of } = props.condition
  const all = times.is === 'at-least' && times.n === of.n
  set({ of: { which: 'last', n }, times: all ? { ...times, n } : times })
}
function whichMail(of: WhichMail) {
  if (of.which === 'mailing') return String(of.id)
  return of.which === 'sequence' ? `sequence ${of.id}` : of.which
}
function setTier(tier: Tier, on: boolean) {
  if (props.condition.kind !== 'tier') return
  const had = props.condition.of
  const of = tiers.filter((one) => (one === tier ? on : had.includes(one)))
  if (of.length) set({ of })
}
const valueOf = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <span v-if="vocabulary" class="flex flex-wrap items-center gap-[5px]">
    <template v-if="condition.kind === 'field'">
      <span class="chip chip-subject">{{ field?.name ?? condition.key }}</span>
      <ValueChips
        :test="condition.test"
        :family="field ? families[field.kind] : 'any'"
        :values="values"
        @look="look"
        @change="(test: Comparison) => set({ test })"
      />
    </template>
    <template v-else-if="condition.kind === 'joined'">
      <span class="chip chip-subject">Joined</span>
      <TimeChips :when="condition.when" @change="(when) => set({ when })" />
    </template>
    <template v-else-if="condition.kind === 'tagged'">
      <span class="chip chip-subject">Tagged</span>
      <select
        class="chip"
        aria-label="Tag"
        :value="condition.tagId"
        @change="set({ tagId: Number(valueOf($event)) })"
      >
        <option v-for="tag in vocabulary.tags" :key="tag.id" :value="tag.id">{{ tag.name }}</option>
      </select>
    </template>
    <template v-else-if="condition.kind === 'on-list'">
      <select
        class="chip chip-subject"
        aria-label="Standing"
        :value="condition.state"
        @change="set({ state: valueOf($event) })"
      >
        <option v-for="(words, state) in states" :key="state" :value="state">{{ words }}</option>
      </select>
      <select
        class="chip"
        aria-label="List"
        :value="condition.listId"
        @change="set({ listId: Number(valueOf($event)) })"
      >
        <option v-for="list in vocabulary.lists" :key="list.id" :value="list.id">
          {{ list.name }}
        </option>
      </select>
      <TimeChips
        ever
        :when="condition.since"
        @change="(since: TimeComparison | null) => set({ since })"
      />
      <span v-if="condition.way" class="chip chip-subject">by {{ condition.way }}</span>
    </template>
    <template v-else-if="condition.kind === 'address'">
      <select
        class="chip chip-subject"
        aria-label="Part of the address"
        :value="condition.part"
        @change="set({ part: valueOf($event) })"
      >
        <option value="whole">Address</option>
        <option value="domain">Domain</option>
      </select>
      <ValueChips
        :test="condition.test"
        family="text"
        :values="condition.part === 'domain' ? domains : []"
        @change="(test: Comparison) => ('text' in test || 'texts' in test) && set({ test })"
      />
    </template>
    <template v-else-if="condition.kind === 'mail'">
      <select
        class="chip chip-subject"
        aria-label="What they did"
        :value="condition.did"
        @change="set({ did: valueOf($event) })"
      >
        <option v-for="(words, did) in mailVerbs" :key="did" :value="did">{{ words }}</option>
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
        :value="whichMail(condition.of)"
        @change="chooseMail(valueOf($event))"
      >
        <option value="any">any mailing</option>
        <option value="last">the last</option>
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
    <template v-else-if="condition.kind === 'orders'">
      <select
        class="chip chip-subject"
        aria-label="Bought or spent"
        :value="condition.what"
        @change="
          set({
            what: valueOf($event),
            test: { is: 'number', than: 'over', number: valueOf($event) === 'money' ? 5_000 : 0 },
          })
        "
      >
        <option value="count">Bought</option>
        <option value="money">Spent</option>
      </select>
      <NumberChips
        :test="condition.test"
        :digits="condition.what === 'money' ? 2 : 0"
        @change="(test) => set({ test })"
      />
      <span>{{ condition.what === 'count' ? 'times' : vocabulary.currency }}</span>
      <select
        v-if="vocabulary.products.length"
        class="chip"
        aria-label="Of what"
        :value="
          condition.product
            ? `p${condition.product}`
            : condition.category
              ? `c${condition.category}`
              : ''
        "
        @change="
          set({
            product: valueOf($event).startsWith('p') ? valueOf($event).slice(1) : null,
            category: valueOf($event).startsWith('c') ? valueOf($event).slice(1) : null,
          })
        "
      >
        <option value="">of anything</option>
        <optgroup label="Category">
          <option v-for="one in vocabulary.categories" :key="one" :value="`c${one}`">
            in {{ one }}
          </option>
        </optgroup>
        <optgroup label="Product">
          <option v-for="one in vocabulary.products" :key="one" :value="`p${one}`">
            {{ one }}
          </option>
        </optgroup>
      </select>
      <WithinChip :days="condition.withinDays" @change="(withinDays) => set({ withinDays })" />
    </template>
    <template v-else-if="condition.kind === 'ordered'">
      <select
        class="chip chip-subject"
        aria-label="First or last"
        :value="condition.which"
        @change="set({ which: valueOf($event) })"
      >
        <option value="last">Last bought</option>
        <option value="first">First bought</option>
      </select>
      <TimeChips :when="condition.when" @change="(when) => set({ when })" />
    </template>
    <template v-else-if="condition.kind === 'event'">
      <span class="chip chip-subject">Did</span>
      <select
        class="chip"
        aria-label="Event"
        :value="condition.name"
        @change="set({ name: valueOf($event) })"
      >
        <option v-if="!vocabulary.events.includes(condition.name)" :value="condition.name">
          {{ condition.name }}
        </option>
        <option v-for="name in vocabulary.events" :key="name" :value="name">{{ name }}</option>
      </select>
      <TimesChips :times="condition.times" @change="(times) => set({ times })" />
      <WithinChip :days="condition.withinDays" @change="(withinDays) => set({ withinDays })" />
      <EventWhere :where="condition.where" @change="(where) => set({ where })" />
    </template>
    <template v-else-if="condition.kind === 'segment'">
      <span class="chip chip-subject">In segment</span>
      <select
        class="chip"
        aria-label="Segment"
        :value="condition.segmentId"
        @change="set({ segmentId: Number(valueOf($event)) })"
      >
        <option
          v-for="one in vocabulary.segments.filter(({ id }) => id !== store.saved?.id)"
          :key="one.id"
          :value="one.id"
        >
          {{ one.name }}
        </option>
      </select>
    </template>
    <template v-else-if="condition.kind === 'sequence'">
      <select
        class="chip chip-subject"
        aria-label="Standing in it"
        :value="condition.is"
        @change="set({ is: valueOf($event) })"
      >
        <option v-for="(words, is) in standings" :key="is" :value="is">{{ words }}</option>
      </select>
      <select
        class="chip"
        aria-label="Sequence"
        :value="condition.sequenceId"
        @change="set({ sequenceId: Number(valueOf($event)) })"
      >
        <option v-for="one in vocabulary.sequences" :key="one.id" :value="one.id">
          {{ one.name }}
        </option>
      </select>
    </template>
    <template v-else-if="condition.kind === 'tier'">
      <span class="chip chip-subject">Engagement is</span>
      <label v-for="tier in tiers" :key="tier" class="chip flex items-center gap-1">
        <input
          type="checkbox"
          :checked="condition.of.includes(tier)"
          @change="setTier(tier, ($event.target as HTMLInputElement).checked)"
        />{{ tier }}
      </label>
    </template>
  </span>
</template>
