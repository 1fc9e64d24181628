<script setup lang="ts">
import {
  MOST_VARIANTS,
  noVariant,
  variantName,
  type TestPlan,
  type Variant,
} from '~~/core/dispatch'
import type { HappeningAnswer } from '~~/core/dispatch'
import { FEWEST_A_VARIANT, smallestDifference } from '~~/core/experiments'

/** What is tried, on how many, and how it is decided; with what such a test can show at all. */
const props = defineProps<{ plan: Plan; happening: HappeningAnswer | null }>()
const store = useMailing()
const test = computed(() => props.plan.plan.value!.test)
const kinds: { of: TestPlan['of']; name: string }[] = [
  { of: 'subject', name: 'the subject' },
  { of: 'sender', name: 'the sender’s name' },
  { of: 'letter', name: 'the letter' },
  { of: 'hour', name: 'the hour' },
]
const measures: { value: TestPlan['measure']; name: string }[] = [
  { value: 'open', name: 'opens' },
  { value: 'click', name: 'clicks' },
  { value: 'goal', name: 'the goal' },
  { value: 'money', name: 'money for each person' },
]
function begin(of: TestPlan['of']) {
  const hours = of === 'hour' ? [8, 18] : [null, null]
  set({
    of,
    variants: hours.map((hour) => ({ ...noVariant, hour })),
    share: of === 'hour' ? 1 : 0.3,
    measure: of === 'subject' || of === 'sender' ? 'open' : 'click',
    hours: of === 'hour' ? 24 : 4,
    decides: 'itself',
  })
}
const set = (next: TestPlan | null) => props.plan.change({ test: next })
const change = (next: Partial<TestPlan>) => test.value && set({ ...test.value, ...next })
function changeVariant(at: number, next: Partial<Variant>) {
  if (!test.value) return
  change({ variants: test.value.variants.map((one, i) => (i === at ? { ...one, ...next } : one)) })
}
const addVariant = () =>
  test.value &&
  change({
    variants: [
      ...test.value.variants,
      { ...noVariant, hour: test.value.of === 'hour' ? 12 : null },
    ],
  })
const removeVariant = (at: number) =>
  test.value && change({ variants: test.value.variants.filter((_, i) => i !== at) })
/** Counted by the lots that will be drawn; null while that is not known. */
const drawn = computed(() => props.happening?.happening?.test ?? null)
/** Those of the smallest variant. */
const each = computed(() => (drawn.value ? Math.min(...drawn.value.each) : null))
/** The smallest difference that shows, in points, from what earlier mailings came to. */
const shows = computed(() => {
  const usual = props.plan.answer.value?.usual
  const { measure } = test.value ?? {}
  // What a goal or money usually comes to is not known before.
  const rate = measure === 'open' ? usual?.opened : measure === 'click' ? usual?.clicked : undefined
  if (rate === undefined) return null
  if (each.value === null) return null
  return { rate, difference: smallestDifference(each.value, rate) }
})
const points = (share: number) => `${(share * 100).toFixed(1)} points`
const given = (event: Event) => (event.target as HTMLInputElement).value
const id = useId()
</script>

<template>
  <section class="sheet mt-4 p-4" :aria-labelledby="`${id}-title`">
    <div class="flex items-baseline justify-between">
      <h2 :id="`${id}-title`">A/B test</h2>
      <button v-if="test" type="button" class="link" @click="set(null)">No test</button>
    </div>
    <div v-if="!test" class="mt-2 flex flex-wrap items-center gap-2">
      <span class="muted">Try</span>
      <button
        v-for="kind in kinds"
        :key="kind.of"
        type="button"
        class="btn btn-sm"
        @click="begin(kind.of)"
      >
        {{ kind.name }}
      </button>
    </div>
    <template v-else>
      <p class="muted mt-1">
        Some people get one variant each; the rest gets what did best. Who gets which is drawn by
        lot.
      </p>
      <div
        v-for="(variant, i) in test.variants"
        :key="i"
        class="mt-2 grid grid-cols-[28px_1fr_auto] items-center gap-2"
        role="group"
        :aria-label="`Variant ${variantName(i)}`"
      >
        <b class="tag block text-center">{{ variantName(i) }}</b>
        <select
          v-if="test.of === 'hour'"
          class="field field-sm w-44"
          :aria-label="`Hour of variant ${variantName(i)}`"
          :value="variant.hour ?? 9"
          @change="changeVariant(i, { hour: Number(given($event)) })"
        >
          <option v-for="hour in 24" :key="hour" :value="hour - 1">
            {{ String(hour - 1).padStart(2, '0') }}:00
          </option>
        </select>
        <span v-else-if="i === 0" class="truncate"
          ><b v-if="test.of === 'subject'" class="font-[560]">{{ store.letter?.subject }}</b
          ><span v-if="test.of === 'sender'">{{ store.mailing!.sender }}</span>
          <span class="muted"> as the mailing stands</span></span
        >
        <div v-else-if="test.of === 'subject'" class="grid gap-1.5">
          <KeptInput
            class="field field-sm"
            :aria-label="`Subject of variant ${variantName(i)}`"
            placeholder="Another subject"
            maxlength="500"
            :value="variant.subject"
            @taken="changeVariant(i, { subject: $event })"
          />
          <KeptInput
            class="field field-sm"
            :aria-label="`Preview text of variant ${variantName(i)}`"
            placeholder="Another preview text, or none: the same"
            maxlength="500"
            :value="variant.previewText"
            @taken="changeVariant(i, { previewText: $event })"
          />
        </div>
        <KeptInput
          v-else-if="test.of === 'sender'"
          class="field field-sm"
          :aria-label="`Sender’s name of variant ${variantName(i)}`"
          placeholder="Another name"
          maxlength="120"
          :value="variant.senderName"
          @taken="changeVariant(i, { senderName: $event })"
        />
        <select
          v-else
          class="field field-sm"
          :aria-label="`Letter of variant ${variantName(i)}`"
          :value="variant.mailingId ?? ''"
          @change="changeVariant(i, { mailingId: Number(given($event)) || null })"
        >
          <option value="">the letter of another draft</option>
          <option
            v-for="draft in plan.answer.value?.drafts ?? []"
            :key="draft.id"
            :value="draft.id"
          >
            {{ draft.name }}
          </option>
        </select>
        <button
          v-if="i > 1 || (i === 1 && test.variants.length > 2)"
          type="button"
          class="px-1.5"
          :aria-label="`Remove variant ${variantName(i)}`"
          @click="removeVariant(i)"
        >
          ×
        </button>
        <span v-else class="w-5" />
      </div>
      <button
        v-if="test.variants.length < MOST_VARIANTS"
        type="button"
        class="btn btn-sm mt-2"
        @click="addVariant"
      >
        One more variant
      </button>
      <div class="mt-4 grid grid-cols-[130px_1fr] items-center gap-x-4 gap-y-2.5">
        <label :for="`${id}-share`">On test</label>
        <span class="flex items-center gap-3"
          ><input
            :id="`${id}-share`"
            type="range"
            min="5"
            max="100"
            step="5"
            class="w-52"
            :value="Math.round(test.share * 100)"
            :aria-valuetext="`${Math.round(test.share * 100)} per cent`"
            @change="change({ share: Number(given($event)) / 100 })"
          /><span
            >{{ Math.round(test.share * 100) }}%:
            {{
              drawn
                ? `${people(drawn.people)}, ${drawn.each.map(count).join(' and ')}`
                : 'counting…'
            }}</span
          ></span
        >
        <label :for="`${id}-measure`">Decided by</label>
        <select
          :id="`${id}-measure`"
          class="field field-sm w-52"
          :value="test.measure"
          @change="change({ measure: given($event) as TestPlan['measure'] })"
        >
          <option v-for="one in measures" :key="one.value" :value="one.value">
            {{ one.name }}
          </option>
        </select>
        <template v-if="test.share < 1">
          <label :for="`${id}-hours`">After</label>
          <span class="flex items-center gap-2"
            ><KeptInput
              :id="`${id}-hours`"
              type="number"
              min="0.25"
              max="336"
              step="any"
              class="field field-sm w-20"
              :value="test.hours"
              @taken="change({ hours: Number($event) || 4 })"
            />{{ test.hours === 1 ? 'hour' : 'hours' }}</span
          >
          <span :id="`${id}-by`">Then</span>
          <ChoiceButtons
            :model-value="test.decides"
            label="Who decides"
            :options="[
              { value: 'itself', name: 'the best goes to the rest by itself' },
              { value: 'hand', name: 'I decide' },
            ]"
            @update:model-value="change({ decides: $event as TestPlan['decides'] })"
          />
        </template>
      </div>
      <p v-if="each !== null && each < FEWEST_A_VARIANT" class="mt-3" role="status">
        <MarkDot level="caution" class="mr-1.5 inline" />{{ people(each) }} a variant are few: below
        {{ FEWEST_A_VARIANT }} only large differences show.
      </p>
      <p v-if="shows?.difference" class="muted mt-2">
        Earlier mailings came to {{ percent(shows.rate) }}
        {{ test!.measure === 'open' ? 'opened' : 'clicked' }}. This test would show a difference of
        {{ points(shows.difference) }} or more, four times out of five.
      </p>
    </template>
  </section>
</template>
