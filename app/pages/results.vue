<script setup lang="ts">
import { totalOf } from '~~/core/counting'

interface Row {
  id: number
  name: string
  state: string
  started_at: number | null
  accepted: number | null
  complained: number | null
  opened: number | null
}
interface SequenceMail {
  id: number
  name: string
  sequence_id: number
  sequence: string
  delivered: number
  opened: number
}
/** A mail as it stands in the list. */
interface Item {
  id: number
  name: string
  about: string
  opened: string
}
const route = useRoute()
const { at } = useTimes()
const { answer: mailings } = useAnswer<Row[]>(() => '/api/mailings')
const { answer: sequences } = useAnswer<SequenceMail[]>(() => '/api/results/sequences')
/** Which of the two is listed: that of the mail shown, until the other is chosen. */
const kind = ref<'mailings' | 'sequences'>('mailings')
const ofMailings = useLabelView('mailing', 'results')
/** Mail of sequences is found by the labels of its sequence. */
const bySequence = useLabelView('sequence', 'results of sequences')
const view = computed(() => (kind.value === 'mailings' ? ofMailings : bySequence))
const sent = computed<Item[]>(() =>
  (ofMailings.kept(mailings.value) ?? [])
    .filter((row) => row.started_at !== null)
    .map((row) => ({
      id: row.id,
      name: row.name,
      about: at(row.started_at!).toFormat('d LLL yyyy'),
      opened: percent((row.opened ?? 0) / Math.max(1, totalOf(row, 'delivered'))),
    })),
)
const ofSequences = computed<Item[]>(() =>
  (sequences.value ?? []).map(({ id, name, delivered, opened }) => ({
    id,
    name,
    about: `${count(delivered)} delivered`,
    opened: delivered ? percent(opened / delivered) : 'none',
  })),
)
const isOfSequence = computed(() =>
  ofSequences.value.some(({ id }) => String(id) === route.params.id),
)
watch(
  () => [route.params.id, isOfSequence.value],
  () => {
    if (route.params.id) kind.value = isOfSequence.value ? 'sequences' : 'mailings'
  },
  { immediate: true },
)
const groups = computed(() => {
  if (kind.value === 'mailings')
    return (
      ofMailings
        .groups(sent.value)
        ?.map(({ label, rows }) => ({ title: label?.name ?? 'No label', items: rows })) ?? [
        { title: '', items: sent.value },
      ]
    )
  const ids = [...new Set((sequences.value ?? []).map((one) => one.sequence_id))]
  const kept = bySequence.kept(ids.map((id) => ({ id }))) ?? []
  return kept.map(({ id: key }) => {
    const own = (sequences.value ?? []).filter((one) => one.sequence_id === key)
    const items = ofSequences.value.filter(({ id }) => own.some((one) => one.id === id))
    return { title: own[0]!.sequence, items }
  })
})
const none = computed(() =>
  kind.value === 'sequences'
    ? sequences.value && bySequence.kept(sequences.value) && !groups.value.length
    : ofMailings.kept(mailings.value) && !sent.value.length,
)
useLanding(
  () => '/results',
  () => {
    // Which mailings are listed may not be known yet: no mail of a sequence goes before them.
    const known = ofMailings.kept(mailings.value) !== null
    const first = sent.value[0] ?? (known ? ofSequences.value[0] : undefined)
    return first && `/results/${first.id}`
  },
)
useKeys((event) => {
  if (isWriting(event) || event.ctrlKey || event.metaKey) return
  const listed = [...new Set(groups.value.flatMap(({ items }) => items))]
  const here = listed.findIndex((row) => String(row.id) === route.params.id)
  const next =
    event.key === 'j'
      ? listed[here + 1]
      : event.key === 'k'
        ? listed[Math.max(0, here - 1)]
        : undefined
  if (next) void goTo(view.value.at(`/results/${next.id}`))
})
</script>

<template>
  <div class="flex h-full">
    <nav class="side w-[230px]" aria-label="Results">
      <NuxtLink to="/results/account" class="side-item" active-class="here">Over the year</NuxtLink>
      <NuxtLink to="/results/data" class="side-item border-b border-line" active-class="here"
        >Export</NuxtLink
      >
      <ChoiceButtons
        v-model="kind"
        class="px-4 pt-3 pb-2"
        label="Results of"
        :options="[
          { value: 'mailings', name: 'Mailings' },
          { value: 'sequences', name: 'Sequences' },
        ]"
      />
      <LabelView class="px-4 pb-2" :view="view" :no-groups="kind === 'sequences'" />
      <p v-if="none" class="muted small px-4 py-2">
        {{
          kind === 'sequences'
            ? view.label
              ? 'No sequence with this label has sent anything yet.'
              : 'No sequence has sent anything yet.'
            : view.label
              ? 'No mailing with this label has gone out yet.'
              : 'No mailing has gone out yet.'
        }}
      </p>
      <template v-for="(group, i) in groups" :key="i">
        <h2 v-if="group.title" class="side-title">{{ group.title }}</h2>
        <NuxtLink
          v-for="row in group.items"
          :key="row.id"
          :to="view.at(`/results/${row.id}`)"
          class="side-item flex-col !gap-0"
          active-class="here"
        >
          <span class="truncate">{{ row.name }}</span><span
            class="muted small flex justify-between font-normal"
            ><span>{{ row.about }}</span
            ><span>{{ row.opened }} opened</span></span
          >
        </NuxtLink>
      </template>
    </nav>
    <div class="min-w-0 flex-1 overflow-auto px-5 py-4">
      <NuxtPage />
      <div
        v-if="
          mailings?.every((row) => row.started_at === null) &&
          sequences?.length === 0 &&
          route.path === '/results'
        "
        class="mx-auto max-w-md pt-[12vh]"
      >
        <h1>No results yet</h1>
        <p class="muted mt-1">
          When a mailing has gone out, it will stand here how far people got with it, and when.
        </p>
        <button class="btn btn-go mt-4" @click="writeLetter">Write a letter</button>
      </div>
    </div>
  </div>
</template>
