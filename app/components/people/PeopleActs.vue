<script setup lang="ts">
/** What can be done with the people chosen in the table; each can be undone. */
const props = defineProps<{ ids: number[]; lists: { id: number; name: string }[] }>()
const emit = defineEmits<{ clear: []; done: [] }>()
const dialog = ref<'list' | 'aside' | null>(null)
const tag = ref('')
const opposites: Record<string, string> = {
  tag: 'untag',
  untag: 'tag',
  list: 'unlist',
  'set-aside': 'take-back',
}
interface Act {
  act: string
  tag?: string
  listId?: number
  reason?: string
}
async function act(body: Act, words: string) {
  const send = (ids: number[], of: Act) =>
    ask<{ changed: number[] }>('/api/people/act', { method: 'POST', body: { ids, ...of } })
  const done = await send(props.ids, body)
  if (!done) return
  emit('done')
  const { changed } = done
  const text = `${people(changed.length)} ${words}${changed.length < props.ids.length ? '; for the others nothing changed' : ''}.`
  const back = opposites[body.act]
  useNotices().say(
    text,
    changed.length && back
      ? {
          label: 'Undo',
          run: async () => {
            await send(changed, {
              ...body,
              act: back,
              reason: body.reason ? 'undone' : undefined,
            } as Act)
            emit('done')
          },
        }
      : undefined,
  )
}
</script>

<template>
  <div class="flex flex-wrap items-center gap-2 border-b border-line bg-brass-100 px-3 py-1.5">
    <b>{{ people(ids.length) }} chosen</b>
    <form
      class="flex gap-1"
      @submit.prevent="tag.trim() && act({ act: 'tag', tag: tag.trim() }, `tagged ${tag.trim()}`)"
    >
      <input
        v-model="tag"
        class="field field-sm w-28"
        aria-label="Tag"
        placeholder="tag"
        maxlength="60"
      />
      <button class="btn btn-sm" :disabled="!tag.trim()">Tag</button>
      <button
        type="button"
        class="btn btn-sm"
        :disabled="!tag.trim()"
        @click="act({ act: 'untag', tag: tag.trim() }, `no longer tagged ${tag.trim()}`)"
      >
        Untag
      </button>
    </form>
    <button type="button" class="btn btn-sm" @click="dialog = 'list'">List…</button>
    <button type="button" class="btn btn-sm" @click="dialog = 'aside'">Set aside…</button>
    <a class="btn btn-sm" :href="`/api/people/export?format=csv&ids=${ids.join(',')}`">Take out</a>
    <span class="flex-1" />
    <button type="button" class="btn btn-sm" @click="emit('clear')">Choose none</button>
    <SubscriptionDialog
      v-if="dialog === 'list'"
      :lists="lists"
      @close="dialog = null"
      @done="
        (body) => (
          (dialog = null),
          act(body, body.act === 'list' ? 'put on the list' : 'taken off the list')
        )
      "
    />
    <ReasonDialog
      v-if="dialog === 'aside'"
      :title="`Set ${people(ids.length)} aside`"
      about="They are never mailed from then on, whatever the lists say, until you take them back."
      verb="Set aside"
      @close="dialog = null"
      @done="(reason) => ((dialog = null), act({ act: 'set-aside', reason }, 'set aside'))"
    />
  </div>
</template>
