<script setup lang="ts">
import type { Field, FieldValue } from '~~/core/people'

/** One person by hand, with the reason why they may be mailed. */
const overview = useAnswer<{ lists: { id: number; name: string }[]; fields: Field[] }>(
  () => '/api/people/overview',
  { live: false },
)
const address = ref('')
const values = ref<Record<string, FieldValue | null>>({})
const lists = ref<number[]>([])
const tags = ref('')
const reason = ref('')
const source = ref('')
const faults = ref<Record<string, string>>({})
async function add() {
  faults.value = {}
  try {
    const { id } = await changeAt<{ id: number }>('/api/people', {
      method: 'POST',
      body: {
        address: address.value,
        values: values.value,
        lists: lists.value,
        tags: tags.value
          .split(',')
          .map((tag) => tag.trim())
          .filter(Boolean),
        reason: reason.value,
        source: source.value,
      },
    })
    useLive().changes++
    await goTo(`/people/${id}`)
  } catch (error) {
    const problem = problemOf(error)
    faults.value = problem.fields
    if (Object.keys(problem.fields).length === 0) useNotices().refuse(problem.message)
  }
}
</script>

<template>
  <form class="mx-auto max-w-2xl" @submit.prevent="add">
    <h1>Add one person</h1>
    <p class="muted mt-0.5">For many at once, import a file.</p>
    <div class="sheet mt-4 grid grid-cols-[150px_1fr] items-center gap-x-4 gap-y-2 p-4">
      <label for="address">Address</label>
      <div>
        <input
          id="address"
          v-model="address"
          class="field"
          type="text"
          inputmode="email"
          autocomplete="off"
          :aria-invalid="!!faults.address"
        />
        <p v-if="faults.address" class="fault" role="alert">{{ faults.address }}</p>
      </div>
      <template v-for="field in overview.answer.value?.fields" :key="field.key">
        <span class="muted">{{ field.name }}</span>
        <div>
          <FieldInput
            framed
            :field="field"
            :value="values[field.key] ?? undefined"
            @change="values = { ...values, [field.key]: $event }"
          />
          <p v-if="faults[`values.${field.key}`]" class="fault" role="alert">
            {{ faults[`values.${field.key}`] }}
          </p>
        </div>
      </template>
      <label for="source" class="muted">Where they come from</label>
      <input
        id="source"
        v-model="source"
        class="field"
        maxlength="100"
        placeholder="festival desk, telephone, a friend of Ann’s"
      />
      <label for="tags" class="muted">Tags</label>
      <input id="tags" v-model="tags" class="field" placeholder="owner, press" />
      <span>Lists</span>
      <div class="flex flex-wrap gap-4">
        <label
          v-for="list in overview.answer.value?.lists"
          :key="list.id"
          class="flex items-center gap-2"
          ><input v-model="lists" type="checkbox" :value="list.id" />{{ list.name }}</label
        >
      </div>
      <label for="reason">Why they may be mailed</label>
      <div>
        <input
          id="reason"
          v-model="reason"
          class="field"
          maxlength="300"
          placeholder="asked at the festival desk, 22 November"
          :disabled="!lists.length"
        />
        <p v-if="faults.reason" class="fault" role="alert">{{ faults.reason }}</p>
      </div>
    </div>
    <div class="mt-3 flex gap-2">
      <button class="btn btn-go" :disabled="!address.trim()">Add</button>
      <NuxtLink to="/people" class="btn">Cancel</NuxtLink>
    </div>
  </form>
</template>
