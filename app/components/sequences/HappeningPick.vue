<script setup lang="ts">
import { happenings, stepsInOrder, type Happening } from '~~/core/sequences'
import type { Rule } from '~~/core/segments'
import { mailWords, segmentsOf } from './words'

/** What is asked of somebody inside: what they did since they came in, or a segment they are in. */
withDefaults(
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
    step.kind === 'mail' ? [{ id, words: mailWords(step.mailingId, of.value) }] : [],
  ),
)
const value = (event: Event) => (event.target as HTMLSelectElement).value
const noSegment: Rule = { kind: 'any', of: [] }
function choose(is: Happening['is']) {
  if (is === 'did') emit('change', { is, event: of.value.events[0] ?? '' })
  else if (is === 'fits') emit('change', { is, rule: noSegment })
  else if (is === 'ordered') emit('change', { is })
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
    <EventPick
      v-if="what.is === 'did'"
      label="Which event"
      :name="what.event"
      @change="emit('change', { is: 'did', event: $event })"
    />
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
