<script setup lang="ts">
import { stepsInOrder, type SequenceMap } from '~~/core/sequences'
import type { MoreAct } from '~/components/common/MoreMenu.vue'
import { asPng } from '~/components/sequences/picture'
import { stepWords } from '~/components/sequences/words'

const route = useRoute()
const live = useLive()
const store = useSequence()
const notices = useNotices()
const busy = ref(false)
const fault = ref('')
const asking = ref<'end' | 'delete' | 'publish' | 'resume' | 'keep' | 'labels' | null>(null)
const id = computed(() => Number(route.params.id))
watch(id, (next) => Number.isFinite(next) && void store.open(next), { immediate: true })
watch(
  () => live.changes,
  () => void store.open(id.value),
)
const rehearsal = useRehearsal()
const views = [
  { value: 'map', name: 'Map' },
  { value: 'rehearsal', name: 'Rehearsal' },
  { value: 'results', name: 'Results' },
] as const
/** What is looked at; a view has an address. */
const view = computed({
  get: () => views.find(({ value }) => value === route.query.view)?.value ?? 'map',
  set: (next) => void goTo({ query: next === 'map' ? {} : { view: next } }),
})
watch(view, (next) => rehearsal.show(next === 'rehearsal'), { immediate: true })
onBeforeUnmount(() => rehearsal.show(false))
const chosenStep = computed(() =>
  store.chosen === null ? undefined : store.sequence?.map.steps[store.chosen],
)
async function tell(what: 'start' | 'pause' | 'end', moves = false, spread = 0) {
  asking.value = null
  fault.value = ''
  // Nothing is started while what was changed here is not saved; stopping it never waits.
  const unsaved = what === 'start' ? await useUnsaved().settle(`/api/sequences/${id.value}`) : null
  if (unsaved) return void (fault.value = unsaved)
  busy.value = true
  const body =
    what === 'start' ? { revision: store.keeper!.state.value.known!.version, moves, spread } : {}
  await act(`/api/sequences/${id.value}/${what}`, 'POST', body)
  await store.open(id.value)
  live.changes++
  busy.value = false
}
/** A sequence's fields in words, where two people's stand side by side. */
function describe(field: string, value: unknown): string {
  if (field === 'listId')
    return store.sequence!.lists.find(({ id }) => id === value)?.name ?? 'no list'
  if (field !== 'map') return String(value)
  const map = value as SequenceMap
  return stepsInOrder(map)
    .map(({ step }) => stepWords(step, { ...store.sequence!, map }))
    .join(' → ')
}
/** A copy to draw on, of what is saved. */
async function duplicate() {
  const goOn = wayOn()
  busy.value = true
  const unsaved = await useUnsaved().settle(`/api/sequences/${id.value}`)
  const made = unsaved
    ? null
    : await act<{ id: number }>(`/api/sequences/${id.value}/duplicate`, 'POST')
  busy.value = false
  if (unsaved) return void (fault.value = unsaved)
  if (!made) return
  live.changes++
  if ((await goOn(`/sequences/${made.id}`, 'The copy is made.')) === 'went')
    notices.say('This is the copy. It is a draft, with letters of its own.')
}
async function throwAway() {
  asking.value = null
  const path = `/api/sequences/${id.value}`
  if (!(await act(path, 'DELETE'))) return
  markGone(path)
  live.changes++
  await goTo('/sequences')
  notices.say('The sequence is deleted.')
}
useKeys((event) => {
  const { chosen } = store
  // Of the map that ran nothing is taken out.
  const canChange = store.canChange && view.value !== 'results'
  if (event.key === 'Delete' && !isWriting(event) && canChange && chosenStep.value && chosen) {
    event.preventDefault()
    return void store.remove(chosen)
  }
  if (event.key === 'Escape' && store.held) return void (store.held = null)
  const letter = event.key.toLowerCase()
  if ((event.ctrlKey || event.metaKey) && 'cx'.includes(letter) && letter && !isWriting(event)) {
    // What is marked is what one wants to copy.
    if (!chosenStep.value || !chosen || getSelection()?.toString()) return
    event.preventDefault()
    return store.pickUp(chosen, letter === 'x' && canChange)
  }
  if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z' || isWriting(event))
    return
  event.preventDefault()
  void (event.shiftKey ? store.redo() : store.undo())
})
const closeMail = useTemplateRef('closeMail')
const drawn = useTemplateRef('drawn')
/** The map as it is shown now, as a file. */
async function takePicture(as: 'svg' | 'png') {
  const { name } = store.sequence!
  try {
    const picture = await drawn.value?.picture()
    if (!picture) return
    const svg = new Blob([picture.svg], { type: 'image/svg+xml' })
    saveFile(fileName(name, as), as === 'svg' ? svg : await asPng(picture))
  } catch (error) {
    notices.say(`The picture could not be made. ${problemOf(error).message}`)
  }
}
/** The sequence as it is saved, as a file. */
async function takeOut() {
  const unsaved = await useUnsaved().settle(`/api/sequences/${id.value}`)
  if (unsaved) return void (fault.value = unsaved)
  location.assign(`/api/sequences/${id.value}/file`)
}
async function keep(as: { name: string; about: string }) {
  const unsaved = await useUnsaved().settle(`/api/sequences/${id.value}`)
  if (unsaved) return (void (fault.value = unsaved), false)
  if (!(await act(`/api/sequences/${id.value}/keep`, 'POST', as))) return false
  notices.say(`Kept. “${as.name}” is offered wherever an empty sequence begins.`)
  return true
}
/** Puts it away from the others, or back among them. */
async function archive(archived: boolean) {
  const path = `/api/sequences/${id.value}/archive`
  if (!(await act(path, 'POST', { archived }))) return
  live.changes++
  notices.say(
    archived ? 'Archived. It stands under “Archived” now.' : 'It is back among the others.',
    {
      label: 'Undo',
      run: () => void act(path, 'POST', { archived: !archived }).then(() => live.changes++),
    },
  )
}
const more = computed((): MoreAct[] => {
  const { state, archivedAt, map } = store.sequence!
  const hasSteps = Object.keys(map.steps).length > 0
  const file = 'GET /api/sequences/[id]/file'
  return [
    {
      name: 'Discard changes',
      handler: 'PUT /api/sequences/[id]',
      offered: store.canChange && store.differs,
      run: () => void store.discard(),
    },
    {
      name: 'Labels…',
      handler: 'POST /api/labels',
      offered: true,
      run: () => (asking.value = 'labels'),
    },
    {
      name: 'Duplicate',
      handler: 'POST /api/sequences/[id]/duplicate',
      offered: true,
      run: () => void duplicate(),
    },
    {
      name: 'Keep as a template…',
      handler: 'POST /api/sequences/[id]/keep',
      offered: hasSteps,
      run: () => (asking.value = 'keep'),
    },
    { name: 'File: JSON', handler: file, offered: true, run: () => void takeOut() },
    {
      name: 'Picture: SVG',
      handler: file,
      offered: hasSteps,
      run: () => void takePicture('svg'),
    },
    {
      name: 'Picture: PNG',
      handler: file,
      offered: hasSteps,
      run: () => void takePicture('png'),
    },
    {
      name: archivedAt === null ? 'Archive' : 'Take out of the archive',
      handler: 'POST /api/sequences/[id]/archive',
      offered: state === 'draft' || state === 'ended',
      run: () => void archive(archivedAt === null),
    },
    {
      name: 'End…',
      handler: 'POST /api/sequences/[id]/end',
      offered: state === 'running' || state === 'paused',
      run: () => (asking.value = 'end'),
    },
    {
      name: 'Delete…',
      handler: 'DELETE /api/sequences/[id]',
      offered: state === 'draft',
      run: () => (asking.value = 'delete'),
    },
  ]
})
/** What makes it run as it is drawn; nothing where it does. */
const goes = computed(() => {
  if (store.sequence!.state === 'draft') return 'Start'
  if (store.sequence!.state === 'paused') return store.differs ? 'Publish and go on' : 'Go on'
  return store.differs ? 'Publish' : null
})
/** Publishing and going on after a pause ask how; the first start does not. */
function begin() {
  if (store.differs) asking.value = 'publish'
  else if (store.sequence!.state === 'paused') asking.value = 'resume'
  else void tell('start')
}
const about = computed(() => {
  const { version, state, counts } = store.sequence!
  return [
    version > 0 && `version ${version}`,
    state !== 'draft' && `${people(counts.inside)} inside`,
  ]
    .filter(Boolean)
    .join(' · ')
})
</script>

<template>
  <p v-if="store.problem && !store.sequence" class="fault p-6" role="alert">{{ store.problem }}</p>
  <div v-else-if="store.sequence" class="flex h-full flex-col">
    <div class="flex flex-none items-center gap-4 border-b border-line bg-sheet px-[18px] py-2">
      <KeptInput
        :value="store.sequence.name"
        class="field field-sizing-content w-auto max-w-[320px] min-w-[120px] flex-none border-transparent px-1 font-head text-[16px] font-[640] hover:border-line"
        aria-label="Name of the sequence"
        maxlength="100"
        @taken="store.set({ name: $event })"
      />
      <StateMark class="flex-none" :state="store.sequence.state" />
      <span class="muted small min-w-0 truncate">{{ about }}</span>
      <span v-if="store.differs" class="small flex-none font-semibold text-brass-700"
        >changed, not published</span
      >
      <ChoiceButtons v-model="view" class="ml-auto flex-none" label="View" :options="[...views]" />
      <div class="flex flex-none items-center gap-2">
        <template v-if="store.canChange">
          <UndoRedo
            :past="store.past.length > 0"
            :future="store.future.length > 0"
            @undo="store.undo()"
            @redo="store.redo()"
          />
        </template>
        <MoreMenu :acts="more" :disabled="busy" />
        <button
          v-if="store.sequence.state === 'running'"
          v-may="'POST /api/sequences/[id]/pause'"
          class="btn btn-sm"
          :disabled="busy"
          @click="tell('pause')"
        >
          Pause
        </button>
        <button
          v-if="store.canChange && goes"
          class="btn btn-sm btn-go"
          :disabled="busy || store.waits !== null || store.sequence.problems.length > 0"
          @click="begin"
        >
          {{ goes }}
        </button>
      </div>
    </div>
    <div
      v-if="store.keeper && (!store.keeper.settled() || store.keeper.overtaken.value)"
      class="border-b border-line bg-sheet px-[18px] py-2"
    >
      <KeptState :keeper="store.keeper" :describe="describe" />
    </div>
    <p v-if="fault" class="fault px-[18px] py-2" role="alert">{{ fault }}</p>
    <div class="flex min-h-0 flex-1">
      <div class="min-w-0 flex-1" :class="store.counting && 'invisible'">
        <SequenceMap ref="drawn" :key="`${id} ${view === 'results'}`" :wide="view === 'results'" />
      </div>
      <aside class="w-[300px] flex-none overflow-auto border-l border-line bg-sheet">
        <section
          v-if="store.sequence.problems.length"
          class="border-b border-line px-4 py-3"
          aria-label="What it lacks"
        >
          <h2>
            {{ store.sequence.version ? 'Before it can be published' : 'Before it can start' }}
          </h2>
          <MapMarks :marks="store.sequence.problems" level="blocker" />
        </section>
        <section
          v-show="store.sequence.cautions.length || closeMail?.isThere"
          class="border-b border-line px-4 py-3"
          aria-label="Marks"
        >
          <h2>Marks</h2>
          <MapMarks :marks="store.sequence.cautions" level="caution" />
          <CloseMail v-if="view === 'map'" ref="closeMail" :key="id" />
        </section>
        <RehearsalPanel v-if="view === 'rehearsal'" />
        <SequenceResults v-if="view === 'results'" :key="id" />
        <section v-else class="border-b border-line px-4 py-3" aria-label="Step">
          <StepSettings
            v-if="chosenStep"
            :id="store.chosen!"
            :key="store.chosen!"
            :step="chosenStep"
          />
          <StartSettings v-else />
        </section>
        <section v-if="view === 'map'" class="px-4 py-3" aria-label="People inside">
          <PeopleInside />
        </section>
      </aside>
    </div>
    <LabelsDialog
      v-if="asking === 'labels'"
      kind="sequence"
      :item-id="id"
      :name="store.sequence.name"
      @close="asking = null"
    />
    <PublishDialog
      :open="asking === 'publish'"
      :busy="busy"
      @close="asking = null"
      @publish="(moves, spread) => tell('start', moves, spread)"
    />
    <ResumeDialog
      v-if="asking === 'resume'"
      :busy="busy"
      @close="asking = null"
      @resume="tell('start', false, $event)"
    />
    <KeepTemplateDialog
      v-if="asking === 'keep'"
      :name="store.sequence.name"
      about="Its steps and letters as they are drawn now. What you change in this sequence afterwards does not change the template."
      :keep="keep"
      @close="asking = null"
    />
    <BaseDialog
      :open="store.missing?.of === store.sequence.id"
      title="Look through it"
      @close="store.missing = null"
    >
      <p>Not all of it is there in this account:</p>
      <ul class="mt-2 list-disc space-y-1.5 pl-5">
        <li v-for="one in store.missing?.what" :key="one" class="break-words">{{ one }}</li>
      </ul>
      <template #actions
        ><button class="btn btn-go" @click="store.missing = null">I’ll look</button></template
      >
    </BaseDialog>
    <BaseDialog :open="asking === 'end'" title="End this sequence?" @close="asking = null">
      <p>
        {{ people(store.sequence.counts.inside) }} inside will get nothing more from it. What came
        of it stays; it can’t be started again. To stop it for a while, pause it.
      </p>
      <template #actions
        ><button class="btn" @click="asking = null">Let it run</button
        ><button class="btn btn-bad" @click="tell('end')">End it</button></template
      >
    </BaseDialog>
    <BaseDialog :open="asking === 'delete'" title="Delete this sequence?" @close="asking = null">
      <p>Its map and the letters of its mails are lost.</p>
      <template #actions
        ><button class="btn" @click="asking = null">Keep it</button
        ><button class="btn btn-bad" @click="throwAway">Delete it</button></template
      >
    </BaseDialog>
  </div>
</template>
