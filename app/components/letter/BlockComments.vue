<script setup lang="ts">
/** What was said about the chosen block, and a line to say something. */
const store = useMailing()
const { dayAndTime } = useTimes()
const text = ref('')
const answering = ref<number | null>(null)
const answer = ref('')
const base = computed(() => `/api/mailings/${store.mailing!.id}/comments`)
const here = computed(() => store.comments.filter(({ blockId }) => blockId === store.chosen))
const open = computed(() => here.value.filter(({ resolved }) => !resolved))
const dealtWith = computed(() => here.value.filter(({ resolved }) => resolved))
watch(
  () => store.chosen,
  () => ((text.value = ''), (answering.value = null)),
)
async function say(words: string, answerTo: number | null) {
  if (!words.trim() || !store.chosen) return
  const said = await act(base.value, 'POST', {
    blockId: store.chosen,
    text: words.trim(),
    answerTo,
  })
  if (!said) return
  if (answerTo === null) text.value = ''
  else {
    answer.value = ''
    answering.value = null
  }
  await store.askComments()
}
async function resolve(id: number, resolved: boolean) {
  if (!(await act(`${base.value}/${id}`, 'PUT', { resolved }))) return
  await store.askComments()
  if (resolved)
    useNotices().say('The comment is resolved.', {
      label: 'Undo',
      run: () => void resolve(id, false),
    })
}
</script>

<template>
  <section v-if="store.chosen" class="border-b border-line px-3.5 py-3 text-[12.5px]">
    <h2>Comments</h2>
    <article v-for="comment in open" :key="comment.id" class="mt-2">
      <p class="m-0">
        <b class="font-[560]">{{ comment.byName || 'Somebody' }}</b>
        <span class="muted"> {{ dayAndTime(comment.at) }}</span>
      </p>
      <p class="m-0 break-words whitespace-pre-wrap">{{ comment.text }}</p>
      <p
        v-for="one in comment.answers"
        :key="one.id"
        class="m-0 mt-1 border-l-2 border-line pl-2 break-words whitespace-pre-wrap"
      >
        <b class="font-[560]">{{ one.byName || 'Somebody' }}</b> {{ one.text }}
      </p>
      <form
        v-if="answering === comment.id"
        class="mt-1 flex gap-1.5"
        @submit.prevent="say(answer, comment.id)"
      >
        <input
          v-model="answer"
          class="field field-sm"
          aria-label="Your answer"
          maxlength="2000"
        /><button class="btn btn-sm" :disabled="!answer.trim()">Answer</button>
      </form>
      <p class="m-0 mt-1 flex gap-3">
        <button type="button" class="link" @click="answering = comment.id">Answer</button>
        <button type="button" class="link" @click="resolve(comment.id, true)">Resolve</button>
      </p>
    </article>
    <details v-if="dealtWith.length" class="mt-2">
      <summary class="muted cursor-pointer">{{ dealtWith.length }} resolved</summary>
      <article v-for="comment in dealtWith" :key="comment.id" class="muted mt-1">
        <b class="font-[560]">{{ comment.byName || 'Somebody' }}</b> {{ comment.text }}
        <button type="button" class="link" @click="resolve(comment.id, false)">Open again</button>
      </article>
    </details>
    <form class="mt-2 flex gap-1.5" @submit.prevent="say(text, null)">
      <input
        v-model="text"
        class="field field-sm"
        aria-label="Comment on this block"
        placeholder="Say something about this block"
        maxlength="2000"
      /><button class="btn btn-sm" :disabled="!text.trim()">Comment</button>
    </form>
  </section>
</template>
