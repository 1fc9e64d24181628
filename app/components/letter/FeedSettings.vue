<script setup lang="ts">
import { isSame, safeLink, type Feed } from '~~/core/letters'
import type { FeedState } from '~~/core/letters'

/** Where the entries come from, and taking in what is new there. What the letter shows changes only then. */
const props = defineProps<{ block: Feed }>()
const store = useMailing()
const { answer: told, reload } = useAnswer<FeedState>(() =>
  props.block.url ? `/api/feeds?url=${encodeURIComponent(props.block.url)}` : null,
)
const isNew = computed(
  () =>
    !!told.value?.entries.length &&
    !isSame(
      told.value.entries.slice(0, props.block.many),
      props.block.entries.slice(0, props.block.many),
    ),
)
function setAddress(text: string) {
  const url = safeLink(text)
  if (url !== props.block.url) store.update(props.block.id, { url, entries: [] })
}
const change = (to: { many?: number; about?: boolean }) => store.update(props.block.id, to)
function takeIn() {
  if (told.value) store.update(props.block.id, { entries: told.value.entries })
}
async function readAgain() {
  await act('/api/feeds', 'POST', { url: props.block.url })
  void reload()
}
// A letter that shows nothing of the feed yet takes in the first that comes.
watch(told, (now) => {
  if (now?.entries.length && !props.block.entries.length && store.canChange) takeIn()
})
const { dayAndTime } = useTimes()
const id = useId()
</script>

<template>
  <label :for="`${id}-url`">Its address</label>
  <KeptInput
    :id="`${id}-url`"
    class="field field-sm"
    placeholder="https://"
    :value="block.url"
    @taken="setAddress"
  />
  <label :for="`${id}-many`">How many</label>
  <KeptInput
    :id="`${id}-many`"
    type="number"
    min="1"
    max="12"
    class="field field-sm w-20"
    :value="block.many"
    @taken="change({ many: Number($event) || 3 })"
  />
  <label :for="`${id}-about`">Beginnings</label>
  <label class="flex items-center gap-2"
    ><input
      :id="`${id}-about`"
      type="checkbox"
      :checked="block.about"
      @change="change({ about: ($event.target as HTMLInputElement).checked })"
    />shown under the titles</label
  >
  <div v-if="block.url" class="col-span-2 space-y-1.5" aria-live="polite">
    <p v-if="told?.problem" class="text-bad-600">{{ told.problem }}</p>
    <p v-else-if="told?.waits" class="muted">The feed is being read…</p>
    <p v-else-if="told?.readAt" class="muted">
      {{ several(told.entries.length, 'entry', 'entries') }}, read {{ dayAndTime(told.readAt) }}.
      {{ isNew ? 'The letter shows older ones.' : 'The letter shows the newest.' }}
    </p>
    <div class="flex gap-2">
      <button v-if="isNew" type="button" class="btn btn-sm" @click="takeIn">
        Take in what is new
      </button>
      <button type="button" class="btn btn-sm" @click="readAgain">Read it again</button>
    </div>
  </div>
</template>
