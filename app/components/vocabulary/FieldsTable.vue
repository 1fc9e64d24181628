<script setup lang="ts">
import { fieldKinds, type FieldKind } from '~~/core/people'
import { fieldInput } from '~~/shared/people-inputs'

interface OwnField {
  key: string
  name: string
  kind: FieldKind
  retired_at: number | null
  readers: number
  people: number
  version: string
}
interface Kept {
  name: string
  retired: boolean
  readers: number
}
/** The account's own fields: made, renamed, made another kind, joined, retired. */
const {
  rows: fields,
  problem: silence,
  reload,
  keeperFor,
  change,
} = useKeptRows<OwnField, Kept>({
  path: '/api/fields',
  key: ({ key }) => key,
  value: ({ name, retired_at, readers }) => ({
    name,
    retired: retired_at !== null,
    readers,
  }),
  body: ({ readers, ...rest }) => ({ ...rest, readers: readers === 1 }),
  names: { name: 'Name', retired: 'Retired', readers: 'On the reader’s page' },
})
const notices = useNotices()
const changing = ref<OwnField | null>(null)
const { form, faults, busy, submit } = useForm(fieldInput, { name: '', kind: 'text' as FieldKind })

async function make() {
  if (!(await submit((body) => changeAt('/api/fields', { method: 'POST', body })))) return
  form.name = ''
  await reload()
}
async function rename(field: OwnField, name: string) {
  const before = field.name
  if (!name.trim() || name === before) return
  if (await change(field, { name }))
    notices.say(`${before} is called ${name} now.`, {
      label: 'Undo',
      run: () => void change(field, { name: before }),
    })
}
async function open(field: OwnField, readers: boolean) {
  if (await change(field, { readers: Number(readers) }))
    notices.say(
      readers
        ? `Readers see and change ${field.name} on their own page.`
        : `Readers do not see ${field.name} any more.`,
      { label: 'Undo', run: () => void open(field, !readers) },
    )
}
async function retire(field: OwnField, retired: boolean) {
  if ((await change(field, { retired })) && retired)
    notices.say(`${field.name} is not offered any more. Values and rules stay.`, {
      label: 'Undo',
      run: () => void retire(field, false),
    })
}
</script>

<template>
  <div>
    <form
      class="sheet flex flex-wrap items-start gap-2 p-3"
      aria-label="New field"
      @submit.prevent="make"
    >
      <div class="w-64">
        <input
          v-model="form.name"
          class="field"
          aria-label="Name"
          placeholder="Name of a new field"
        />
        <p v-if="faults.name" class="fault mt-1" role="alert">{{ faults.name }}</p>
      </div>
      <select v-model="form.kind" class="field !w-44" aria-label="Holds">
        <option v-for="kind in fieldKinds" :key="kind" :value="kind">{{ kindWords[kind] }}</option>
      </select>
      <button v-may="'POST /api/fields'" class="btn" :disabled="busy">Make it</button>
    </form>
    <p v-if="silence && !fields" class="fault p-4" role="alert">{{ silence }}</p>
    <div class="sheet mt-3">
      <p v-if="fields?.length === 0" class="muted p-4">
        No fields of your own yet. An import makes those its columns need, too.
      </p>
      <table v-else class="grid-table">
        <thead>
          <tr>
            <th>Field</th>
            <th>Holds</th>
            <th>In a letter</th>
            <th>Readers may change it</th>
            <th class="num">People who have it</th>
            <th class="w-[210px]"><span class="sr-only">Changes</span></th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="field in fields"
            :key="field.key"
            :class="field.retired_at !== null && 'text-ink-500'"
          >
            <td>
              <KeptInput
                class="field field-sm max-w-[220px]"
                :aria-label="`Name of ${field.name}`"
                :value="field.name"
                @taken="rename(field, $event)"
              />
              <KeptState :keeper="keeperFor(field)" />
            </td>
            <td>{{ kindWords[field.kind] }}</td>
            <td class="small muted">person.{{ field.key }}</td>
            <td>
              <input
                type="checkbox"
                class="block h-6 w-6"
                :aria-label="`Readers may change ${field.name}`"
                :checked="field.readers === 1"
                @change="open(field, ($event.target as HTMLInputElement).checked)"
              />
            </td>
            <td class="num">{{ count(field.people) }}</td>
            <td class="text-right whitespace-nowrap">
              <template v-if="field.retired_at === null">
                <button
                  v-may="'POST /api/fields/[key]/change'"
                  type="button"
                  class="btn btn-sm"
                  @click="changing = field"
                >
                  Change<span class="sr-only"> {{ field.name }}</span>
                </button>
                <button
                  v-may="'PUT /api/fields/[key]'"
                  type="button"
                  class="btn btn-sm ml-1"
                  @click="retire(field, true)"
                >
                  Retire<span class="sr-only"> {{ field.name }}</span>
                </button>
              </template>
              <button
                v-may="'PUT /api/fields/[key]'"
                v-else
                type="button"
                class="btn btn-sm"
                @click="retire(field, false)"
              >
                Bring back<span class="sr-only"> {{ field.name }}</span>
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <ChangeFieldDialog
      v-if="changing"
      :field="changing"
      :others="fields!.filter(({ key }) => key !== changing!.key)"
      @close="changing = null"
      @done="reload"
    />
  </div>
</template>
