<script setup lang="ts">
const route = useRoute()
const live = useLive()
const store = useMailing()
const id = computed(() => Number(route.params.id))
watch(id, (next) => Number.isFinite(next) && void store.open(next), { immediate: true })
watch(
  () => live.changes,
  () => void store.refresh(),
)
onBeforeUnmount(() => {
  void store.flush()
  removeEventListener('pagehide', store.leave)
})
onMounted(() => addEventListener('pagehide', store.leave))
useLanding(
  () => `/mail/${id.value}`,
  () =>
    store.mailing?.id === id.value
      ? `/mail/${id.value}/${store.mailing.started_at ? (store.mailing.sequence ? 'results' : 'dispatch') : 'letter'}`
      : undefined,
)
useKeys((event) => {
  const key = event.key.toLowerCase()
  if (!(event.ctrlKey || event.metaKey) || !['z', 'y'].includes(key)) return
  if (!route.path.endsWith('/letter')) return
  event.preventDefault()
  if (event.shiftKey || key === 'y') store.redo()
  else store.undo()
})
/** The mailing's settings in words, where two people's stand side by side. */
function describe(field: string, value: unknown): string {
  const { lists, segments } = store.mailing!
  const named = (id: unknown) => segments.find((one) => one.id === id)?.name ?? 'one that is gone'
  if (Array.isArray(value)) return value.length ? value.map(named).join(', ') : 'none'
  if (field === 'listId') return lists.find(({ id }) => id === value)?.name ?? 'none'
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  return value === null ? 'none' : String(value)
}
const saved = { saved: 'Saved', waiting: 'Writing…', saving: 'Saving…', failed: 'Not saved' }
</script>

<template>
  <p v-if="store.problem && !store.mailing" class="fault p-6" role="alert">{{ store.problem }}</p>
  <!-- The one before is still to be saved; it is not shown as this one. -->
  <p v-else-if="store.mailing && store.mailing.id !== id" class="muted p-6" role="status">
    Saving “{{ store.mailing.name }}” first…
  </p>
  <div v-else-if="store.mailing" class="flex h-full flex-col">
    <div class="flex flex-none items-center gap-4 border-b border-line bg-sheet px-[18px] py-2">
      <KeptInput
        :value="store.mailing.name"
        class="field field-sizing-content w-auto min-w-[120px] max-w-[280px] border-transparent px-1 font-head text-[16px] font-[640] hover:border-line"
        aria-label="Name of the mailing"
        maxlength="120"
        @taken="store.set({ name: $event })"
      />
      <StateMark :state="mailingState(store.mailing)" />
      <NuxtLink
        v-if="store.mailing.sequence"
        class="link small whitespace-nowrap"
        :to="`/sequences/${store.mailing.sequence.id}`"
        >of {{ store.mailing.sequence.name }}</NuxtLink
      >
      <MailingStages class="ml-2" />
      <div class="ml-auto flex items-center gap-2">
        <WhoElse v-if="route.path.endsWith('/letter')" />
        <LetterMenu v-if="route.path.endsWith('/letter')" />
        <LetterOut v-if="route.path.endsWith('/letter')" />
        <NuxtLink
          v-if="route.path.endsWith('/letter')"
          class="btn btn-sm"
          :to="`/mail/${store.mailing.id}/history`"
          >History</NuxtLink
        >
        <template v-if="route.path.endsWith('/letter') && store.canChange">
          <span class="small muted" role="status">{{ saved[store.saving] }}</span>
          <UndoRedo
            :past="store.past.length > 0"
            :future="store.future.length > 0"
            @undo="store.undo()"
            @redo="store.redo()"
          />
        </template>
      </div>
    </div>
    <div
      v-if="store.settings && (!store.settings.settled() || store.settings.overtaken.value)"
      class="border-b border-line bg-sheet px-[18px] empty:hidden"
    >
      <KeptState class="my-2" :keeper="store.settings" :describe="describe" />
    </div>
    <div class="min-h-0 flex-1 overflow-auto"><NuxtPage /></div>
  </div>
</template>
