<script setup lang="ts">
/** What can be done with the people chosen in the table; each can be undone. */
defineProps<{
  ids: number[]
  /** How many the table has. */
  total: number
  choosingAll: boolean
  lists: { id: number; name: string }[]
}>()
const emit = defineEmits<{ clear: []; all: []; done: [] }>()
const dialog = ref<'list' | 'aside' | 'out' | 'sequence' | null>(null)
const tag = ref('')
const { act, underway, done, of, stop } = usePeopleActs(() => emit('done'))
</script>

<template>
  <div class="flex flex-wrap items-center gap-2 border-b border-line bg-brass-100 px-3 py-1.5">
    <b>{{ people(ids.length) }} chosen</b>
    <form
      class="flex gap-1"
      @submit.prevent="
        tag.trim() && act(ids, { act: 'tag', tag: tag.trim() }, `tagged ${tag.trim()}`)
      "
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
        @click="act(ids, { act: 'untag', tag: tag.trim() }, `no longer tagged ${tag.trim()}`)"
      >
        Untag
      </button>
    </form>
    <button type="button" class="btn btn-sm" @click="dialog = 'list'">List…</button>
    <button type="button" class="btn btn-sm" @click="dialog = 'aside'">Suppressed…</button>
    <button type="button" class="btn btn-sm" @click="dialog = 'sequence'">Sequence…</button>
    <button type="button" class="btn btn-sm" @click="dialog = 'out'">Export…</button>
    <span class="flex-1" />
    <template v-if="underway">
      <span class="w-40"><ProgressBar :done="done" :total="of" label="People done" /></span>
      <span class="small">{{ count(done) }} of {{ count(of) }}</span>
      <button type="button" class="btn btn-sm" @click="stop">Stop here</button>
    </template>
    <button
      v-else-if="ids.length < total"
      type="button"
      class="btn btn-sm"
      :disabled="choosingAll"
      @click="emit('all')"
    >
      {{ choosingAll ? 'Choosing…' : `Choose all ${count(total)}` }}
    </button>
    <button type="button" class="btn btn-sm" @click="emit('clear')">Choose none</button>
    <TakeOutDialog
      v-if="dialog === 'out'"
      :which="{ ids: ids.join(',') }"
      :about="`${people(ids.length)} chosen in the table.`"
      @close="dialog = null"
    />
    <SubscriptionDialog
      v-if="dialog === 'list'"
      :lists="lists"
      @close="dialog = null"
      @done="
        (body) => (
          (dialog = null),
          act(ids, body, body.act === 'list' ? 'put on the list' : 'taken off the list')
        )
      "
    />
    <LetInDialog
      v-if="dialog === 'sequence'"
      :about="`${people(ids.length)} chosen in the table.`"
      @close="dialog = null"
      @done="
        (sequence) => (
          (dialog = null),
          act(
            ids,
            { act: 'let-in', sequenceId: sequence.id },
            `on their way into “${sequence.name}”, as far as its rule lets them`,
          )
        )
      "
    />
    <ReasonDialog
      v-if="dialog === 'aside'"
      :title="`Set ${people(ids.length)} aside`"
      about="They are never mailed from then on, whatever the lists say, until you take them back."
      verb="Suppress"
      @close="dialog = null"
      @done="(reason) => ((dialog = null), act(ids, { act: 'set-aside', reason }, 'suppressed'))"
    />
  </div>
</template>
