<script setup lang="ts">
import { kindNames, MOST_TESTED, partNames, type SignUpForm } from '~~/core/sign-ups'

const route = useRoute()
const live = useLive()
const store = useSignUp()
const notices = useNotices()
const busy = ref(false)
const fault = ref('')
const ending = ref(false)
const labelling = ref(false)
const id = computed(() => Number(route.params.id))
watch(id, (next) => Number.isFinite(next) && void store.open(next), { immediate: true })
watch(
  () => live.changes,
  () => void store.refresh(),
)
const of = computed(() => store.signUp!)
const next = computed(() => (of.value.versions[0]?.version ?? 0) + 1)
const looksBack = ref(false)
const canPublish = computed(
  () => !busy.value && !store.published && store.waits === null && store.blockers.length === 0,
)
/** The draft beside what stands, by lot. */
const testWords = computed(() => {
  const { state, liveVersion, test } = of.value
  if (state !== 'live' || !canPublish.value || (test?.versions.length ?? 0) >= MOST_TESTED)
    return ''
  return test ? `Add the draft to the test` : `Test the draft against ${liveVersion}`
})
const stages = computed(() => [
  { to: `/sign-ups/${id.value}`, name: 'Form' },
  { to: `/sign-ups/${id.value}/consent`, name: 'Consent' },
  { to: `/sign-ups/${id.value}/afterwards`, name: 'Afterwards' },
  { to: `/sign-ups/${id.value}/placement`, name: 'Placement' },
  { to: `/sign-ups/${id.value}/results`, name: 'Results' },
])

async function tell(what: 'publish' | 'test' | 'pause' | 'resume' | 'end') {
  fault.value = ''
  ending.value = false
  // Nothing is published while what was changed here is not saved; stopping it never waits.
  const path = `/api/sign-ups/${id.value}`
  const publishes = what === 'publish' || what === 'test'
  const unsaved = publishes ? await useUnsaved().settle(path) : null
  if (unsaved) return void (fault.value = unsaved)
  busy.value = true
  const body = publishes
    ? { revision: store.keeper!.state.value.known!.version, asTest: what === 'test' }
    : {}
  const route = what === 'test' ? 'publish' : what
  const done = await act<{ version?: number } | undefined>(`${path}/${route}`, 'POST', body)
  busy.value = false
  await store.open(id.value)
  live.changes++
  if (what === 'publish' && done)
    notices.say(`Version ${done.version} is live: it stands everywhere within a minute.`)
  if (what === 'test' && done) {
    notices.say(`Version ${done.version} is tested from now on: visitors see it or another by lot.`)
    await goTo(`/sign-ups/${id.value}/results`)
  }
}
async function copy() {
  const goOn = wayOn()
  const made = await act<{ id: number }>(`/api/sign-ups/${id.value}/copy`, 'POST')
  if (!made) return
  live.changes++
  await goOn(`/sign-ups/${made.id}`, 'The copy is made.')
}
async function remove() {
  const path = `/api/sign-ups/${id.value}`
  const gone = id.value
  // What is gone is not asked how it stands.
  store.close()
  if (!(await act(path, 'DELETE'))) return void store.open(gone)
  markGone(path)
  live.changes++
  await goTo('/sign-ups')
  notices.say('The sign-up is deleted. What came in by it stays.', {
    label: 'Undo',
    async run() {
      if (!(await act(`${path}/restore`, 'POST'))) return
      markBack(path)
      live.changes++
      await goTo(`/sign-ups/${gone}`)
    },
  })
}
/** A form in words, where two people's stand side by side. */
function describe(field: string, value: unknown): string {
  if (field !== 'form') return String(value)
  const form = value as SignUpForm
  return `${kindNames[form.kind]}: ${form.parts.map(({ kind }) => partNames[kind].toLowerCase()).join(', ')}`
}
useKeys((event) => {
  // Words in place are undone with the form; in another field the browser undoes what is typed.
  if (isWriting(event) && (event.target as HTMLElement).tagName !== 'TEXTAREA') return
  if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return
  event.preventDefault()
  if (event.shiftKey) store.redo()
  else store.undo()
})
</script>

<template>
  <p v-if="store.problem && !store.signUp" class="fault p-6" role="alert">{{ store.problem }}</p>
  <div v-else-if="store.signUp" class="flex h-full flex-col">
    <div class="flex flex-none items-center gap-3 border-b border-line bg-sheet px-[18px] py-2">
      <KeptInput
        :value="of.name"
        class="field field-sizing-content w-auto max-w-[260px] min-w-[110px] border-transparent px-1 font-head text-[16px] font-[640] hover:border-line"
        aria-label="Name of the sign-up"
        maxlength="100"
        :disabled="!store.canChange"
        @taken="$event.trim() && store.set({ name: $event.trim() })"
      />
      <StateMark :state="of.state" /><span
        v-if="of.liveVersion"
        class="muted small -ml-1.5 whitespace-nowrap"
        >{{ of.test ? `${of.test.versions.join(', ')} by lot` : of.liveVersion }}</span
      >
      <nav class="flex gap-0.5" aria-label="Parts of the sign-up">
        <NuxtLink
          v-for="one in stages"
          :key="one.to"
          :to="one.to"
          class="rounded-md px-2 py-1 text-[13px]"
          exact-active-class="bg-canvas-100 font-semibold"
          >{{ one.name }}</NuxtLink
        >
      </nav>
      <div class="ml-auto flex items-center gap-1.5">
        <UndoRedo
          v-if="store.canChange"
          :past="store.past.length > 0"
          :future="store.future.length > 0"
          @undo="store.undo()"
          @redo="store.redo()"
        />
        <SignUpMenu
          :state="of.state"
          :test="testWords"
          :versions="of.versions.length > 0"
          @versions="looksBack = true"
          @test="tell('test')"
          @labels="labelling = true"
          @copy="copy"
          @pause="tell('pause')"
          @resume="tell('resume')"
          @end="ending = true"
          @remove="remove"
        />
        <button
          v-if="of.state !== 'ended'"
          v-may="'POST /api/sign-ups/[id]/publish'"
          class="btn btn-sm btn-go"
          :disabled="!canPublish"
          :title="store.waits ?? (of.test ? 'It ends the test.' : undefined)"
          @click="tell('publish')"
        >
          Publish {{ next }}
        </button>
      </div>
    </div>
    <div
      v-if="store.keeper && (!store.keeper.settled() || store.keeper.overtaken.value)"
      class="border-b border-line bg-sheet px-[18px] py-2 empty:hidden"
    >
      <KeptState :keeper="store.keeper" :describe="describe" />
    </div>
    <p v-if="fault" class="fault px-[18px] py-2" role="alert">{{ fault }}</p>
    <div class="min-h-0 flex-1"><NuxtPage /></div>
    <LabelsDialog
      v-if="labelling"
      kind="sign-up"
      :item-id="id"
      :name="of.name"
      @close="labelling = false"
    />
    <SignUpVersions :open="looksBack" @close="looksBack = false" />
    <BaseDialog :open="ending" title="End this sign-up?" @close="ending = false">
      <p>
        Nobody can sign up by it any more, and it can’t go live again. What came in by it stays. To
        stop it for a while, pause it.
      </p>
      <template #actions
        ><button class="btn" @click="ending = false">Let it run</button
        ><button class="btn btn-bad" @click="tell('end')">End it</button></template
      >
    </BaseDialog>
  </div>
</template>
