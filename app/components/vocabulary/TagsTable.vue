<script setup lang="ts">
import { tagColors, type TagColor } from '~~/core/people'
import type { Tag } from '~/composables/tags'

/** Tags with their colours: renamed, joined, taken away. */
type Kept = Pick<Tag, 'name' | 'color'>
const {
  rows: tags,
  problem: silence,
  reload,
  keeperFor,
  change,
} = useKeptRows<Tag, Kept>({
  path: '/api/tags',
  key: ({ id }) => id,
  value: ({ name, color }) => ({ name, color }),
  names: { name: 'Name', color: 'Colour' },
})
const notices = useNotices()
const joining = ref<Tag | null>(null)
const removing = ref<Tag | null>(null)
const into = ref<number | null>(null)

async function rename(tag: Tag, name: string) {
  const before = tag.name
  if (!name.trim() || name === before) return
  if (await change(tag, { name }))
    notices.say(`${before} is called ${name} now.`, {
      label: 'Undo',
      run: () => void change(tag, { name: before }),
    })
}
async function join() {
  const body = { into: into.value }
  if (!(await act(`/api/tags/${joining.value!.id}/join`, 'POST', body))) return
  joining.value = into.value = null
  await reload()
}
async function remove() {
  if (!(await act(`/api/tags/${removing.value!.id}`, 'DELETE'))) return
  removing.value = null
  await reload()
}
</script>

<template>
  <div class="sheet">
    <p v-if="silence && !tags" class="fault p-4" role="alert">{{ silence }}</p>
    <p v-else-if="tags?.length === 0" class="muted p-4">
      No tags yet. Choose people in the table and tag them, or let an import do it.
    </p>
    <table v-else class="grid-table">
      <thead>
        <tr>
          <th>Tag</th>
          <th>Name</th>
          <th>Colour</th>
          <th class="num">People</th>
          <th class="w-[210px]"><span class="sr-only">Changes</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="tag in tags" :key="tag.id">
          <td>
            <span :class="`tag tag-${tag.color}`">{{ tag.name }}</span>
          </td>
          <td>
            <KeptInput
              class="field field-sm max-w-[220px]"
              :aria-label="`Name of ${tag.name}`"
              :value="tag.name"
              @taken="rename(tag, $event)"
            />
            <KeptState :keeper="keeperFor(tag)" />
          </td>
          <td>
            <select
              class="field field-sm !w-28"
              :aria-label="`Colour of ${tag.name}`"
              :value="tag.color"
              @change="
                change(tag, { color: ($event.target as HTMLSelectElement).value as TagColor })
              "
            >
              <option v-for="color in tagColors" :key="color">{{ color }}</option>
            </select>
          </td>
          <td class="num">{{ count(tag.people) }}</td>
          <td class="text-right whitespace-nowrap">
            <button
              v-may="'POST /api/tags/[id]/join'"
              type="button"
              class="btn btn-sm"
              @click="joining = tag"
            >
              Merge<span class="sr-only"> {{ tag.name }}</span>
            </button>
            <button
              v-may="'DELETE /api/tags/[id]'"
              type="button"
              class="btn btn-sm btn-bad ml-1"
              @click="removing = tag"
            >
              Delete<span class="sr-only"> {{ tag.name }}</span>
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <BaseDialog v-if="joining" open :title="`Merge ${joining.name}`" @close="joining = null">
      <label for="join-into">Everybody who has it gets, in its place,</label>
      <select id="join-into" v-model="into" class="field mt-1">
        <option
          v-for="tag in tags!.filter(({ id }) => id !== joining!.id)"
          :key="tag.id"
          :value="tag.id"
        >
          {{ tag.name }}
        </option>
      </select>
      <p class="muted mt-3">Rules that ask for it ask for the other then. This can’t be undone.</p>
      <template #actions>
        <button type="button" class="btn" @click="joining = null">Cancel</button>
        <button type="button" class="btn btn-go" :disabled="into === null" @click="join">
          Merge
        </button>
      </template>
    </BaseDialog>
    <BaseDialog v-if="removing" open :title="`Delete ${removing.name}`" @close="removing = null">
      <p>
        {{ people(removing.people) }} lose it. A rule that asks for it says so from then on and
        matches nobody. This can’t be undone.
      </p>
      <template #actions>
        <button type="button" class="btn" @click="removing = null">Cancel</button>
        <button type="button" class="btn btn-bad" @click="remove">Delete it</button>
      </template>
    </BaseDialog>
  </div>
</template>
