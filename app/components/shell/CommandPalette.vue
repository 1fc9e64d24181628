<script setup lang="ts">
import {
  Combobox,
  ComboboxInput,
  ComboboxOption,
  ComboboxOptions,
  Dialog,
  DialogPanel,
} from '@headlessui/vue'
import { labelled, type Labelled } from '~~/core/labels'
import { isFoundBy } from '~~/core/words'

interface Command {
  id: string
  name: string
  about: string
  run: () => unknown
}
const nothing = () => ({
  people: [],
  mailings: [],
  segments: [],
  sequences: [],
  signUps: [],
  labels: [],
  rule: null,
  fault: null,
})
const shell = useShell()
const words = ref('')
const found = shallowRef<{
  people: { id: number; address: string; name: string }[]
  mailings: { id: number; name: string; state: string }[]
  segments: { id: number; name: string }[]
  sequences: { id: number; name: string; state: string }[]
  signUps: { id: number; name: string; state: string }[]
  labels: { id: number; name: string; kind: Labelled; n: number }[]
  /** What is typed, where it reads as a rule. */
  rule: string | null
  /** Where words that begin as a rule can't be read on. */
  fault: { text: string; message: string; at: number; length: number } | null
}>(nothing())
/** When `g` was pressed last, and how long after it a letter belongs to it, ms. */
let afterG = -Infinity
const TOGETHER = 2_500

const fixed: Command[] = [
  { id: 'write', name: 'Write a letter', about: 'A new mailing', run: writeLetter },
  {
    id: 'import',
    name: 'Import people',
    about: 'From a file',
    run: () => goTo('/people/import'),
  },
  {
    id: 'calendar',
    name: 'Calendar',
    about: 'What goes out, day by day',
    run: () => goTo('/mail/calendar'),
  },
  {
    id: 'vocabulary',
    name: 'Fields, tags, lists',
    about: 'What is known, and how it is called',
    run: () => goTo('/people/vocabulary'),
  },
  {
    id: 'sql',
    name: 'Ask in SQL',
    about: 'A query over people and mail',
    run: () => goTo('/people/sql'),
  },
  {
    id: 'suppressed',
    name: 'Suppressed people',
    about: 'Who is never mailed, and why',
    run: () => goTo('/people?aside=1'),
  },
  {
    id: 'segment',
    name: 'New segment',
    about: 'People by a rule',
    run: () => goTo('/people/segments/new'),
  },
  {
    id: 'stamps',
    name: 'Stamps',
    about: 'Blocks kept for reuse: change once, and every unsent letter follows',
    run: () => goTo('/mail/stamps'),
  },
  {
    id: 'export',
    name: 'Export results',
    about: 'Sends, opens, clicks … as files',
    run: () => goTo('/results/data'),
  },
  ...areas.map((area) => ({
    id: area.path,
    name: area.name,
    about: `g ${area.key}`,
    run: () => goTo(area.path),
  })),
  {
    id: 'settings',
    name: 'Settings',
    about: 'Sender, postal address, pace',
    run: () => goTo('/settings'),
  },
  {
    id: 'letterhead',
    name: 'Letterhead',
    about: 'The look of every letter',
    run: () => goTo('/settings/letterhead'),
  },
  {
    id: 'labels',
    name: 'Labels',
    about: 'On mailings, sequences and sign-ups, to find them',
    run: () => goTo('/settings/labels'),
  },
  {
    id: 'tasks',
    name: 'Tasks',
    about: 'What your team is to do about people',
    run: () => goTo('/tasks'),
  },
  { id: 'team', name: 'Team', about: 'Users and roles', run: () => goTo('/settings/team') },
  {
    id: 'audit',
    name: 'Audit log',
    about: 'Who did what',
    run: () => goTo('/settings/audit'),
  },
  { id: 'keys', name: 'Keys', about: '?', run: () => (shell.keys = true) },
]
const commands = computed<Command[]>(() => {
  const matching = fixed.filter(({ name }) => isFoundBy(name, words.value))
  return [
    ...matching,
    ...(found.value.rule === null
      ? []
      : [
          {
            id: 'rule',
            name: found.value.rule,
            about: 'Segment by this rule',
            run: () => goTo({ path: '/people/segments/new', query: { text: found.value.rule } }),
          },
        ]),
    ...found.value.segments.map((segment) => ({
      id: `s${segment.id}`,
      name: segment.name,
      about: 'Segment',
      run: () => goTo(`/people/segments/${segment.id}`),
    })),
    ...found.value.sequences.map((sequence) => ({
      id: `q${sequence.id}`,
      name: sequence.name,
      about: `Sequence, ${sequence.state}`,
      run: () => goTo(`/sequences/${sequence.id}`),
    })),
    ...found.value.signUps.map((signUp) => ({
      id: `u${signUp.id}`,
      name: signUp.name,
      about: `Sign-up, ${signUp.state}`,
      run: () => goTo(`/sign-ups/${signUp.id}`),
    })),
    ...found.value.mailings.map((mailing) => ({
      id: `m${mailing.id}`,
      name: mailing.name,
      about: `Mailing, ${mailing.state}`,
      run: () => goTo(`/mail/${mailing.id}`),
    })),
    ...found.value.labels.map(({ id, name, kind, n }) => ({
      id: `l${id}${kind}`,
      name,
      about: `Label, on ${several(n, labelled[kind].one, labelled[kind].many)}`,
      run: () => goTo(`${labelled[kind].at}?label=${id}`),
    })),
    ...found.value.people.map((person) => ({
      id: `p${person.id}`,
      name: person.name || person.address,
      about: person.name ? person.address : 'Person',
      run: () => goTo(`/people/${person.id}`),
    })),
  ]
})
let asked = 0
watch(words, async (typed) => {
  const mine = ++asked
  if (typed.trim().length < 2) return void (found.value = nothing())
  const answer = await request<typeof found.value>(
    `/api/find?q=${encodeURIComponent(typed)}`,
  ).catch(() => null)
  if (mine === asked && answer) found.value = answer
})
function choose(command: Command | null) {
  if (!command) return
  shell.palette = false
  void command.run()
}
watch(
  () => shell.palette,
  () => (words.value = ''),
)

useKeys((event) => {
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
    // In a text of a letter it makes a link.
    if (event.defaultPrevented) return
    event.preventDefault()
    shell.palette = !shell.palette
    return
  }
  if (isWriting(event) || event.ctrlKey || event.metaKey || event.altKey || shell.palette) return
  if (event.key === '?') shell.keys = true
  // By when they were pressed, not by when a busy page came round to them.
  const soon = event.timeStamp - afterG < TOGETHER
  const area = soon ? areas.find(({ key }) => key === event.key) : undefined
  afterG = event.key === 'g' ? event.timeStamp : -Infinity
  if (area) void goTo(area.path)
})
</script>

<template>
  <Dialog :open="shell.palette" class="relative z-50" @close="shell.palette = false">
    <div class="fixed inset-0 bg-ink-900/25" aria-hidden="true" />
    <div class="fixed inset-x-0 top-[12vh] flex justify-center px-4">
      <DialogPanel class="floats w-full max-w-xl rounded-md border border-line bg-sheet">
        <Combobox :model-value="null" @update:model-value="choose">
          <ComboboxInput
            class="h-12 w-full rounded-t-md px-4 text-[15px] outline-none"
            placeholder="Find or do anything"
            aria-label="Find or do anything"
            autocomplete="off"
            @change="words = $event.target.value"
          />
          <ComboboxOptions
            static
            class="max-h-[50vh] overflow-auto border-t border-dashed border-brass-500 py-1"
          >
            <ComboboxOption
              v-for="command in commands"
              :key="command.id"
              v-slot="{ active }"
              :value="command"
            >
              <div class="flex justify-between gap-4 px-4 py-1.5" :class="active && 'bg-brass-100'">
                <span>{{ command.name }}</span><span class="muted small">{{ command.about }}</span>
              </div>
            </ComboboxOption>
            <div v-if="commands.length === 0" class="muted px-4 py-3">
              Nothing is called that. Try a name, an address or a mailing.
            </div>
          </ComboboxOptions>
          <p
            v-if="found.fault && commands.length === 0"
            class="small border-t border-line px-4 py-2 text-ink-700"
            role="status"
          >
            As a rule: {{ found.fault.text.slice(0, found.fault.at)
            }}<mark class="bg-bad-100 text-bad-600 underline">{{
              found.fault.text.slice(found.fault.at, found.fault.at + found.fault.length) || '▁'
            }}</mark
            >{{ found.fault.text.slice(found.fault.at + found.fault.length) }}
            <span class="block text-bad-600">{{ found.fault.message }}</span>
          </p>
        </Combobox>
      </DialogPanel>
    </div>
  </Dialog>
</template>
