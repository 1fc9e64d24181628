<script setup lang="ts">
import type { Rule } from '~~/core/segments'
import { MOST_HELD_OUT } from '~~/core/sequences'
import { accountsSender } from '~~/core/senders'
import { freshStarts, startKinds, type Starting } from '~~/core/sequences'
import { otherRule, segmentsOfRule } from './words'

/** What lets people into a sequence, on whose list's behalf, and who of them. */
const store = useSequence()
const of = computed(() => store.sequence!)
const start = computed(() => of.value.map.start)
function anyOf(ids: number[]): Rule | null {
  const parts = ids.map((segmentId): Rule => ({ kind: 'segment', segmentId }))
  return parts.length > 1 ? { kind: 'any', of: parts } : (parts[0] ?? null)
}
const segmentIds = computed(() => segmentsOfRule(start.value.rule))
const outIds = computed(() => segmentsOfRule(start.value.out))
/** What else than segments is asked, as a file or a program wrote it. */
const written = computed(() => ({
  rule: otherRule(start.value.rule, of.value),
  out: otherRule(start.value.out, of.value),
}))
const setSegments = (ids: number[]) => void store.changeStart({ ...start.value, rule: anyOf(ids) })
const setOut = (ids: number[]) =>
  void store.changeStart({ ...start.value, out: anyOf(ids) ?? undefined })
const keep = (by: Starting[]) => void store.changeStart({ ...start.value, by })
const put = (n: number, one: Starting) =>
  keep(start.value.by.map((other, i) => (i === n ? one : other)))
function add(event: Event) {
  const select = event.target as HTMLSelectElement
  keep([...start.value.by, freshStarts[select.value as Starting['is']]])
  select.value = ''
}
const MOST = 6
function setHeldOut(percent: number) {
  if (!Number.isFinite(percent)) return
  const heldOut = Math.round(Math.min(MOST_HELD_OUT / 10, Math.max(0, percent)) * 10)
  void store.changeStart({ ...start.value, heldOut: heldOut || undefined })
}
</script>

<template>
  <h2>Start</h2>
  <fieldset class="mt-2 grid gap-3" :disabled="!store.canChange">
    <label class="grid gap-1"
      ><span class="muted small">On behalf of the list</span>
      <select
        class="field field-sm"
        :value="of.listId ?? ''"
        :disabled="of.version > 0"
        @change="store.set({ listId: Number(($event.target as HTMLSelectElement).value) || null })"
      >
        <option value="">choose a list</option>
        <option v-for="list in of.lists" :key="list.id" :value="list.id">{{ list.name }}</option>
      </select></label
    >
    <div class="grid gap-2">
      <span class="muted small">{{
        start.by.length
          ? 'Somebody comes in who'
          : 'Nobody comes in by themselves: only by hand, a sign-up or another sequence.'
      }}</span>
      <StartPick
        v-for="(one, n) in start.by"
        :key="`${n} ${one.is}`"
        class="border-t border-line-soft pt-2"
        :start="one"
        @change="put(n, $event)"
        @remove="keep(start.by.filter((_, i) => i !== n))"
      />
      <select
        v-if="start.by.length < MOST"
        class="field field-sm"
        aria-label="Another way in"
        value=""
        @change="add"
      >
        <option value="">{{ start.by.length ? 'or who…' : 'Somebody who…' }}</option>
        <option v-for="({ name }, is) in startKinds" :key="is" :value="is">{{ name }}</option>
      </select>
    </div>
    <AlreadyThere :start="start" @change="store.changeStart({ ...start, already: $event })" />
    <AgainPick :again="start.again" @change="store.changeStart({ ...start, again: $event })" />
    <div class="grid gap-1">
      <span class="muted small">{{
        written.rule === null ? 'Of them, who is in any of' : 'Of them, only'
      }}</span>
      <WrittenRule
        v-if="written.rule !== null"
        :text="written.rule"
        :can-change="store.canChange"
        @remove="setSegments([])"
      />
      <SegmentPicks
        v-else-if="store.canChange || segmentIds.length"
        label="Only people of the segment"
        joined="or"
        :segments="of.segments"
        :chosen="segmentIds"
        @choose="setSegments"
      />
      <span v-if="written.rule === null && !segmentIds.length" class="small"
        >no segment asked for: everybody comes in</span
      >
    </div>
    <div class="grid gap-1">
      <span class="muted small">{{
        written.out === null
          ? 'Out before the next step, who comes to be in any of'
          : 'Out before the next step, who comes to fit'
      }}</span>
      <WrittenRule
        v-if="written.out !== null"
        :text="written.out"
        :can-change="store.canChange"
        @remove="setOut([])"
      />
      <SegmentPicks
        v-else-if="store.canChange || outIds.length"
        label="Out by the segment"
        joined="or"
        :segments="of.segments"
        :chosen="outIds"
        @choose="setOut"
      />
      <span v-if="written.out === null && !outIds.length" class="small"
        >no segment: they stay to the end</span
      >
    </div>
    <label class="grid gap-1"
      ><span class="muted small">Held out by lot, to see what the sequence brings</span>
      <span class="flex items-center gap-2"
        ><KeptInput
          class="field field-sm w-20 text-right"
          type="number"
          min="0"
          :max="MOST_HELD_OUT / 10"
          step="1"
          aria-label="Held out, percent"
          :value="(start.heldOut ?? 0) / 10"
          @taken="setHeldOut(Number($event))"
        />% get nothing</span
      ></label
    >
    <SenderFields
      :sender="start.sender ?? accountsSender"
      :usual="of.sender"
      @change="store.changeStart({ ...start, sender: $event })"
    />
  </fieldset>
  <p class="muted small mt-3">
    {{ start.already ? '' : 'What was before it runs lets nobody in.' }} Whoever unsubscribes or is
    suppressed leaves the sequence, too.
  </p>
  <LetIn v-if="of.state === 'running'" />
</template>
