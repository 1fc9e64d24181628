<script setup lang="ts">
import { happenings, mailingsOfStep, stepsInOrder, type Happening } from '~~/core/sequences'
import type { Rule } from '~~/core/segments'
import { mailStepWords, otherRule, segmentsOf, stepWords } from './words'

/** What is asked of somebody inside: what they did since they came in, or a segment they are in. */
const props = withDefaults(
  defineProps<{
    label: string
    what: Happening
    /** Those that can be chosen, with their words. */
    kinds?: Partial<Record<Happening['is'], string>>
  }>(),
  { kinds: () => happenings },
)
const emit = defineEmits<{ change: [what: Happening] }>()
const store = useSequence()
const of = computed(() => store.sequence!)
const mails = computed(() =>
  stepsInOrder(of.value.map).flatMap(({ id, step }) =>
    step.kind === 'mail' ? [{ id, words: mailStepWords(step, of.value) }] : [],
  ),
)
/** The steps that hand people over, with where to. */
const handing = computed(() =>
  stepsInOrder(of.value.map).flatMap(({ id, step }) =>
    step.kind === 'do' && step.acts.some((act) => act.is === 'hand')
      ? [{ id, words: stepWords(step, of.value) }]
      : [],
  ),
)
const isGone = computed(() => {
  const { what } = props
  return what.is === 'answered' && !handing.value.some(({ id }) => id === what.step)
})
/** The links that can be asked for: of the mail that is meant, or of all; the one that is asked for stays, also where it is gone. */
const links = computed(() => {
  if (props.what.is !== 'clicked') return []
  const { mail, link } = props.what
  const step = mail === null ? undefined : of.value.map.steps[mail]
  const mailings = step?.kind === 'mail' ? mailingsOfStep(step) : null
  const found = of.value.links.filter((one) => !mailings || mailings.includes(one.mailingId))
  const byUrl = new Map(found.map((one) => [one.url, one]))
  return link && !byUrl.has(link)
    ? [...byUrl.values(), { mailingId: 0, url: link, words: link }]
    : [...byUrl.values()]
})
/** What else than segments is asked; nothing where none is chosen yet. */
const written = computed(() => {
  const { what } = props
  if (what.is !== 'fits' || (what.rule.kind === 'any' && what.rule.of.length === 0)) return null
  return otherRule(what.rule, of.value)
})
const value = (event: Event) => (event.target as HTMLSelectElement).value
const noSegment: Rule = { kind: 'any', of: [] }
function choose(is: Happening['is']) {
  if (is === 'did') emit('change', { is, event: of.value.events[0] ?? '' })
  else if (is === 'fits') emit('change', { is, rule: noSegment })
  else if (is === 'ordered') emit('change', { is })
  else if (is === 'answered')
    emit('change', { is, step: handing.value[0]?.id ?? 'none', taken: true })
  else emit('change', { is, mail: null })
}
function chooseSegments(ids: number[]) {
  const parts = ids.map((segmentId): Rule => ({ kind: 'segment', segmentId }))
  emit('change', { is: 'fits', rule: { kind: 'any', of: parts } })
}
</script>

<template>
  <div class="grid gap-1.5">
    <select
      class="field field-sm"
      :aria-label="label"
      :value="what.is"
      @change="choose(value($event) as Happening['is'])"
    >
      <option v-for="(words, is) in kinds" :key="is" :value="is">{{ words }}</option>
    </select>
    <template v-if="what.is === 'did'">
      <EventPick
        label="Which event"
        :name="what.event"
        @change="emit('change', { ...what, event: $event } as Happening)"
      />
      <CarriedPick
        :where="what.where"
        @change="emit('change', { ...what, where: $event } as Happening)"
      />
    </template>
    <select
      v-else-if="what.is === 'opened' || what.is === 'clicked'"
      class="field field-sm"
      aria-label="Which mail"
      :value="what.mail ?? ''"
      @change="emit('change', { is: what.is as 'opened', mail: value($event) || null })"
    >
      <option value="">any mail of this sequence</option>
      <option v-for="mail in mails" :key="mail.id" :value="mail.id">{{ mail.words }}</option>
    </select>
    <select
      v-if="what.is === 'clicked' && (links.length || what.link)"
      class="field field-sm"
      aria-label="Which link"
      :value="what.link ?? ''"
      @change="emit('change', { ...what, link: value($event) || undefined } as Happening)"
    >
      <option value="">any link</option>
      <option v-for="link in links" :key="link.url" :value="link.url">
        {{ link.words.trim() || link.url }}
      </option>
    </select>
    <template v-if="what.is === 'answered'">
      <p v-if="!handing.length" class="muted small">
        No step hands anybody over yet: put in a <b>Do</b> that does.
      </p>
      <template v-else>
        <select
          class="field field-sm"
          aria-label="Which step hands over"
          :value="what.step"
          @change="emit('change', { ...what, step: value($event) } as Happening)"
        >
          <option v-if="isGone" :value="what.step">choose the step</option>
          <option v-for="one in handing" :key="one.id" :value="one.id">{{ one.words }}</option>
        </select>
        <select
          class="field field-sm"
          aria-label="What it answered"
          :value="what.taken ? 'taken' : 'refused'"
          @change="emit('change', { ...what, taken: value($event) === 'taken' } as Happening)"
        >
          <option value="taken">took them (2xx)</option>
          <option value="refused">refused them (4xx, or nothing for a day)</option>
        </select>
        <CarriedPick
          of="answer"
          :where="what.where"
          @change="emit('change', { ...what, where: $event } as Happening)"
        />
      </template>
    </template>
    <WrittenRule
      v-if="written !== null"
      :text="written"
      :can-change="store.canChange"
      @remove="chooseSegments([])"
    />
    <SegmentPicks
      v-else-if="what.is === 'fits'"
      label="Which segment"
      joined="or"
      :segments="of.segments"
      :chosen="segmentsOf(what)"
      @choose="chooseSegments"
    />
    <span v-if="what.is !== 'fits'" class="muted small">since they came in</span>
  </div>
</template>
