<script setup lang="ts">
import { readingOf, repaired, type Mark, type Repair } from '~~/core/proof'

const store = useMailing()
const reading = computed(() => store.letter && readingOf(store.letter))
const minutes = computed(() => {
  const whole = Math.round(reading.value?.minutes ?? 0)
  return whole < 1 ? 'less than a minute' : several(whole, 'minute', 'minutes')
})
const notices = useNotices()
async function mend(mark: Mark, { words, change }: Repair) {
  if (change.is === 'own-word') {
    const { word } = change
    if (!(await act('/api/words', 'POST', { word }))) return
    await store.proof()
    return notices.say(`“${word}” is one of your words now.`, {
      label: 'Undo',
      run: async () => {
        await act(`/api/words/${encodeURIComponent(word)}`, 'DELETE')
        await store.proof()
      },
    })
  }
  store.change(
    repaired(store.letter!, mark, change, () => crypto.randomUUID()),
    `repair ${mark.title}`,
  )
  await store.flush()
  notices.say(`Mended: ${words}.`, { label: 'Undo', run: () => store.undo() })
}
/** Checks about how the letter looks. */
const drawn = new Set(['contrast', 'weight', 'pictures-and-words', 'alternative-text'])
/** Where the letter is drawn as those read it whom a mark is about. */
function readAs({ check, readers }: Mark) {
  if (!readers && !drawn.has(check)) return null
  const query = !readers
    ? {}
    : 'truths' in readers
      ? { truths: readers.truths.join() }
      : { lacks: readers.lacks }
  return { path: `/mail/${store.mailing!.id}/renderings`, query }
}
/** Where what is not in the letter is put right. */
function elsewhere({ check }: Mark): { to: string; words: string } | null {
  switch (check) {
    case 'audience':
      return { to: `/mail/${store.mailing!.id}/audience`, words: 'Choose' }
    case 'postal-address':
      return { to: '/settings', words: 'Write it' }
    case 'sender':
      return { to: '/settings', words: 'Change it' }
    case 'authentication':
      return { to: '/standing', words: 'See it' }
  }
  return null
}
function show(blockId: string | null) {
  store.chosen = blockId
  void goTo(`/mail/${store.mailing!.id}/letter`)
}
</script>

<template>
  <div v-if="store.mailing" class="mx-auto max-w-3xl px-6 py-5">
    <h1>Proof</h1>
    <p class="muted mt-0.5">
      Checked over all {{ count(store.eligible) }} people of the audience, again with every change.
    </p>
    <div class="sheet mt-4">
      <div class="sheet-head">
        <h2><ProofWord /></h2>
        <button class="btn btn-sm" :disabled="store.checking" @click="store.proof()">
          Check again
        </button>
      </div>
      <p v-if="store.marks === null && !store.proofProblem" class="muted p-4" role="status">
        The letter, its links and its audience are being checked.
      </p>
      <p v-if="store.marks && !store.marks.length && store.proofState === 'free'" class="p-4">
        No marks. Audience, subject, links, fill-ins, dates, words, pictures and weight are in
        order.
      </p>
      <div
        v-for="(mark, i) in store.marks ?? []"
        :key="i"
        class="grid grid-cols-[18px_1fr_auto] items-start gap-2.5 border-t border-line-soft px-3.5 py-2.5 first-of-type:border-0"
      >
        <MarkDot :level="mark.level" />
        <div>
          <b class="font-semibold">{{ mark.title }}</b>
          <span class="muted small">{{ mark.level }}</span>
          <p class="muted">{{ mark.detail }}</p>
          <NuxtLink v-if="readAs(mark)" class="link small" :to="readAs(mark)!">{{
            mark.readers ? 'Read it as they do' : 'See it as it is drawn'
          }}</NuxtLink>
          <p v-if="mark.repairs?.length && store.canChange" class="mt-1 flex flex-wrap gap-1.5">
            <button
              v-for="repair in mark.repairs"
              :key="repair.words"
              class="btn btn-sm"
              @click="mend(mark, repair)"
            >
              {{ repair.words }}
            </button>
          </p>
        </div>
        <NuxtLink v-if="elsewhere(mark)" class="btn btn-sm" :to="elsewhere(mark)!.to">{{
          elsewhere(mark)!.words
        }}</NuxtLink>
        <button
          v-else-if="store.canChange && mark.check !== 'trial'"
          class="btn btn-sm"
          @click="show(mark.blockId)"
        >
          Show it
        </button>
      </div>
      <OverrulePanel />
    </div>
    <GoingOut />
    <TrialDelivery />
    <SendCopy />
    <div v-if="reading" class="sheet mt-4 p-4">
      <h2>How it reads</h2>
      <p class="mt-1">
        {{ several(reading.words, 'word', 'words') }}, {{ minutes }} to read.
        <template v-if="reading.sentences"
          >{{ Math.round(reading.average) }} words a sentence on average, {{ reading.longest }} in
          the longest.</template
        >
        <template v-if="reading.grade !== null"
          ><template v-if="reading.grade < 0.5"
            >Who has just learnt to read can read it (school grade
            {{ reading.grade.toFixed(1) }}).</template
          ><template v-else
            >It takes about {{ several(Math.round(reading.grade), 'year', 'years') }} of
            school.</template
          ></template
        >
        {{ several(reading.links, 'link', 'links') }} to
        {{ several(reading.places, 'place', 'places') }}.
      </p>
      <p v-if="reading.places > 5" class="muted mt-1">
        Many places to go: most letters do better with one clear thing to do.
      </p>
      <p v-if="reading.average > 20" class="muted mt-1">
        Long sentences. <b>Letter → Tighten</b> shows where they can be parted.
      </p>
    </div>
    <div v-if="store.mailing.held_by === 'proof' && !store.blockers" class="sheet mt-4 p-4">
      <h2>It was blocked, and can go now</h2>
      <p class="muted mt-1">Choose when on the next stage.</p>
      <NuxtLink class="btn btn-go mt-3" :to="`/mail/${store.mailing.id}/dispatch`"
        >Open dispatch</NuxtLink
      >
    </div>
  </div>
</template>
