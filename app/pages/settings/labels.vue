<script setup lang="ts">
import { labelled, labelledKinds, LONGEST_LABEL } from '~~/core/labels'
import type { Label } from '~/composables/labels'

/** All labels: what each is on, renamed, merged, deleted. */
type Kept = Pick<Label, 'name'>
const {
  rows: labels,
  problem: silence,
  reload,
  keeperFor,
  change,
} = useKeptRows<Label, Kept>({
  path: '/api/labels',
  key: ({ id }) => id,
  value: ({ name }) => ({ name }),
  names: { name: 'Name' },
})
const notices = useNotices()
const merging = ref<Label | null>(null)
const into = ref<number | null>(null)

async function rename(label: Label, name: string) {
  const before = label.name
  if (!name.trim() || name === before) return
  if (await change(label, { name }))
    notices.say(`${before} is called ${name.trim()} now.`, {
      label: 'Undo',
      run: () => void change({ ...label, name }, { name: before }),
    })
}
async function merge() {
  if (!(await act(`/api/labels/${merging.value!.id}/merge`, 'POST', { into: into.value }))) return
  merging.value = into.value = null
  await reload()
}
async function remove(label: Label) {
  const path = `/api/labels/${label.id}`
  if (!(await act(path, 'DELETE'))) return
  await reload()
  notices.say(`“${label.name}” is deleted. What it was on stays.`, {
    label: 'Undo',
    run: () => void act(`${path}/restore`, 'POST').then(reload),
  })
}
</script>

<template>
  <div class="mx-auto max-w-3xl px-6 py-5">
    <h1>Settings</h1>
    <SettingsNav />
    <section class="sheet mt-4" aria-labelledby="labels-title">
      <div class="px-3 pt-4 pb-3">
        <h2 id="labels-title">Labels</h2>
        <p class="muted">
          On mailings, sequences and sign-ups, to find them and see them together. Put them on where
          those stand: with <kbd class="tag">L</kbd> in Mail, and under More of a sequence or a
          sign-up.
        </p>
      </div>
      <p v-if="silence && !labels" class="fault px-3 pb-4" role="alert">{{ silence }}</p>
      <p v-else-if="labels?.length === 0" class="muted px-3 pb-4">
        No labels yet. The first is made where it is first put on something.
      </p>
      <table v-else-if="labels" class="grid-table">
        <thead>
          <tr>
            <th>Name</th>
            <th>On</th>
            <th class="w-[170px]"><span class="sr-only">Changes</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="label in labels" :key="label.id">
            <td>
              <KeptInput
                class="field field-sm max-w-[240px]"
                :aria-label="`Name of ${label.name}`"
                :maxlength="LONGEST_LABEL"
                :value="label.name"
                @taken="rename(label, $event)"
              />
              <KeptState :keeper="keeperFor(label)" />
            </td>
            <td>
              <template v-for="kind in labelledKinds" :key="kind">
                <NuxtLink
                  v-if="label.on[kind].length"
                  class="link mr-3 whitespace-nowrap"
                  :to="`${labelled[kind].at}?label=${label.id}`"
                  >{{
                    several(label.on[kind].length, labelled[kind].one, labelled[kind].many)
                  }}</NuxtLink
                >
              </template>
              <span v-if="labelledKinds.every((kind) => !label.on[kind].length)" class="muted"
                >nothing</span
              >
            </td>
            <td class="text-right whitespace-nowrap">
              <button
                v-may="'POST /api/labels/[id]/merge'"
                type="button"
                class="btn btn-sm"
                :disabled="labels.length < 2"
                @click="merging = label"
              >
                Merge<span class="sr-only"> {{ label.name }}</span>
              </button>
              <button
                v-may="'DELETE /api/labels/[id]'"
                type="button"
                class="btn btn-sm btn-bad ml-1"
                @click="remove(label)"
              >
                Delete<span class="sr-only"> {{ label.name }}</span>
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
    <BaseDialog v-if="merging" open :title="`Merge ${merging.name}`" @close="merging = null">
      <label for="merge-into">All that has it gets, in its place,</label>
      <select id="merge-into" v-model="into" class="field mt-1">
        <option
          v-for="label in labels!.filter(({ id }) => id !== merging!.id)"
          :key="label.id"
          :value="label.id"
        >
          {{ label.name }}
        </option>
      </select>
      <p class="muted mt-3">This can’t be undone.</p>
      <template #actions>
        <button type="button" class="btn" @click="merging = null">Cancel</button>
        <button type="button" class="btn btn-go" :disabled="into === null" @click="merge">
          Merge
        </button>
      </template>
    </BaseDialog>
  </div>
</template>
