<script setup lang="ts">
import type { Rule } from '~~/core/segments'
import { accountsSender } from '~~/core/senders'

/** What lets people into a sequence, on whose list's behalf, and who of them. */
const store = useSequence()
const of = computed(() => store.sequence!)
const start = computed(() => of.value.map.start)
const segmentIds = computed(() => {
  const { rule } = start.value
  const parts = rule?.kind === 'any' ? rule.of : rule ? [rule] : []
  return parts.flatMap((part) => (part.kind === 'segment' ? part.segmentId : []))
})
function setSegments(ids: number[]) {
  const parts = ids.map((segmentId): Rule => ({ kind: 'segment', segmentId }))
  const rule: Rule | null = parts.length > 1 ? { kind: 'any', of: parts } : (parts[0] ?? null)
  void store.changeStart({ ...start.value, rule })
}
function setWhen(value: string) {
  const when = value === '' ? { is: 'joined' as const } : { is: 'event' as const, name: value }
  void store.changeStart({ ...start.value, when })
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
    <label class="grid gap-1"
      ><span class="muted small">Somebody comes in who</span>
      <select
        class="field field-sm"
        :value="start.when.is === 'event' ? start.when.name : ''"
        @change="setWhen(($event.target as HTMLSelectElement).value)"
      >
        <option value="">joins the list</option>
        <option v-for="name in of.events" :key="name" :value="name">does “{{ name }}”</option>
        <option
          v-if="start.when.is === 'event' && !of.events.includes(start.when.name)"
          :value="start.when.name"
        >
          does “{{ start.when.name }}”
        </option>
      </select></label
    >
    <div class="grid gap-1">
      <span class="muted small">and is in any of</span>
      <SegmentPicks
        v-if="store.canChange || segmentIds.length"
        label="Only people of the segment"
        joined="or"
        :segments="of.segments"
        :chosen="segmentIds"
        @choose="setSegments"
      />
      <span v-if="!segmentIds.length" class="small">no segment asked for: everybody comes in</span>
    </div>
    <SenderFields
      :sender="start.sender ?? accountsSender"
      :usual="of.sender"
      @change="store.changeStart({ ...start, sender: $event })"
    />
  </fieldset>
  <p class="muted small mt-3">
    Once a person. Whoever unsubscribes or is suppressed leaves the sequence, too.
  </p>
</template>
