<script setup lang="ts">
import { kindsAddedTo, LONGEST_TASK, MOST_TASK_DAYS } from '~~/core/people'
import { actNames, type Act, type DoStep } from '~~/core/sequences'

/** What is done with somebody who comes by, one after the other. */
const props = defineProps<{ id: string; step: DoStep }>()
const store = useSequence()
const of = computed(() => store.sequence!)
const fresh: { [K in Act['is']]: Extract<Act, { is: K }> } = {
  tag: { is: 'tag', tag: '' },
  untag: { is: 'untag', tag: '' },
  set: { is: 'set', field: '', value: '' },
  add: { is: 'add', field: '', value: '1' },
  start: { is: 'start', sequenceId: 0 },
  leave: { is: 'leave', listId: null },
  stop: { is: 'stop', sequenceId: 0 },
  join: { is: 'join', listId: 0, statement: '' },
  note: { is: 'note', text: '' },
  task: { is: 'task', text: '', days: 1, to: '' },
  tell: { is: 'tell', to: '', text: '' },
  hand: { is: 'hand', url: '', how: 'both', fields: [] },
} as never
const keep = (acts: Act[]) => void store.changeStep(props.id, { ...props.step, acts })
const put = (n: number, act: Act) => keep(props.step.acts.map((one, i) => (i === n ? act : one)))
function add(event: Event) {
  const select = event.target as HTMLSelectElement
  keep([...props.step.acts, { ...fresh[select.value as Act['is']] }])
  select.value = ''
}
/** Only numbers and choices can be added to. */
const fieldsFor = ({ is }: Act) =>
  is === 'add' ? of.value.fields.filter(({ kind }) => kindsAddedTo.includes(kind)) : of.value.fields
const wholeDays = (days: number) =>
  Number.isFinite(days) ? Math.round(Math.min(MOST_TASK_DAYS, Math.max(0, days))) : 0
const value = (event: Event) => (event.target as HTMLSelectElement).value
</script>

<template>
  <h2>Do</h2>
  <fieldset class="mt-2 grid gap-3" :disabled="!store.canChange">
    <p v-if="!step.acts.length" class="muted small">Nothing yet.</p>
    <div
      v-for="(act, n) in step.acts"
      :key="n"
      class="grid gap-1.5 border-t border-line-soft pt-2 first:border-0 first:pt-0"
    >
      <span class="flex items-center justify-between"
        ><b class="small font-semibold">{{ actNames[act.is] }}</b>
        <button
          type="button"
          class="btn btn-sm"
          :aria-label="`Remove: ${actNames[act.is]}`"
          @click="keep(step.acts.filter((_, i) => i !== n))"
        >
          Remove
        </button></span
      >
      <KeptInput
        v-if="act.is === 'tag' || act.is === 'untag'"
        class="field field-sm"
        aria-label="Tag"
        maxlength="60"
        :value="act.tag"
        @taken="put(n, { ...act, tag: $event })"
      />
      <template v-else-if="act.is === 'set' || act.is === 'add'">
        <select
          class="field field-sm"
          aria-label="Field"
          :value="act.field"
          @change="put(n, { ...act, field: value($event) })"
        >
          <option value="">choose a field</option>
          <option v-for="field in fieldsFor(act)" :key="field.key" :value="field.key">
            {{ field.name }}
          </option>
        </select>
        <KeptInput
          class="field field-sm"
          :aria-label="act.is === 'add' ? 'What is added' : 'Value'"
          :placeholder="act.is === 'add' ? 'a number, or a choice' : 'empty: it is cleared'"
          maxlength="1000"
          :value="act.value"
          @taken="put(n, { ...act, value: $event })"
        />
      </template>
      <select
        v-else-if="act.is === 'start' || act.is === 'stop'"
        class="field field-sm"
        aria-label="Sequence"
        :value="act.sequenceId"
        @change="put(n, { ...act, sequenceId: Number(value($event)) })"
      >
        <option :value="0">choose a sequence</option>
        <option v-for="one in of.others" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select>
      <KeptInput
        v-else-if="act.is === 'note'"
        class="field field-sm"
        aria-label="What the note says"
        maxlength="2000"
        :value="act.text"
        @taken="put(n, { ...act, text: $event })"
      />
      <template v-else-if="act.is === 'task'">
        <KeptInput
          class="field field-sm"
          aria-label="What is to be done"
          placeholder="what is to be done about them"
          :maxlength="LONGEST_TASK"
          :value="act.text"
          @taken="put(n, { ...act, text: $event })"
        />
        <label class="flex items-center gap-2"
          >Due
          <KeptInput
            class="field field-sm w-16 text-right"
            type="number"
            min="0"
            :max="MOST_TASK_DAYS"
            aria-label="Due after, days"
            :value="act.days"
            @taken="put(n, { ...act, days: wholeDays(Number($event)) })"
          />
          days later</label
        >
        <label class="flex items-center gap-2"
          >By
          <select
            class="field field-sm min-w-0"
            aria-label="Who does it"
            :value="act.to"
            @change="put(n, { ...act, to: value($event) })"
          >
            <option value="">anybody</option>
            <option
              v-for="one in new Set([...of.team, ...(act.to ? [act.to] : [])])"
              :key="one"
              :value="one"
            >
              {{ one }}
            </option>
          </select></label
        >
        <p class="muted small">It stands on their page, and on Today when it is due.</p>
      </template>
      <template v-else-if="act.is === 'tell'">
        <select
          class="field field-sm"
          aria-label="Who of the team"
          :value="act.to"
          @change="put(n, { ...act, to: value($event) })"
        >
          <option value="">choose who</option>
          <option
            v-for="one in new Set([...of.team, ...(act.to ? [act.to] : [])])"
            :key="one"
            :value="one"
          >
            {{ one }}
          </option>
        </select>
        <KeptInput
          class="field field-sm"
          aria-label="What the mail says"
          placeholder="what is to be done about them"
          maxlength="2000"
          :value="act.text"
          @taken="put(n, { ...act, text: $event })"
        />
        <p class="muted small">One mail tells of all who came by since the last.</p>
      </template>
      <HandOverSettings v-else-if="act.is === 'hand'" :act="act" @change="put(n, $event)" />
      <template v-else-if="act.is === 'join'">
        <select
          class="field field-sm"
          aria-label="List to join"
          :value="act.listId"
          @change="put(n, { ...act, listId: Number(value($event)) })"
        >
          <option :value="0">choose a list</option>
          <option v-for="list in of.lists" :key="list.id" :value="list.id">{{ list.name }}</option>
        </select>
        <KeptInput
          class="field field-sm"
          aria-label="What they agreed to"
          placeholder="the words by which they agreed to it"
          maxlength="2000"
          :value="act.statement"
          @taken="put(n, { ...act, statement: $event })"
        />
        <p class="muted small">
          These words are kept as evidence. Who left this list, or is suppressed, is not subscribed.
        </p>
      </template>
      <select
        v-else-if="act.is === 'leave'"
        class="field field-sm"
        aria-label="List"
        :value="act.listId ?? ''"
        @change="put(n, { ...act, listId: Number(value($event)) || null })"
      >
        <option value="">the sequence’s list, and so out of it</option>
        <option v-for="list in of.lists" :key="list.id" :value="list.id">{{ list.name }}</option>
      </select>
    </div>
    <select class="field field-sm" aria-label="Something to do" value="" @change="add">
      <option value="">Something to do…</option>
      <option v-for="(name, is) in actNames" :key="is" :value="is">{{ name }}</option>
    </select>
  </fieldset>
  <HandOverAnswers v-if="step.acts.some((act) => act.is === 'hand')" :step="id" />
</template>
