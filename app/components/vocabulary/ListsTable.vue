<script setup lang="ts">
/** Lists: what they are called here, what readers see, and the List-Id that mail programs file them by. */
interface List {
  id: number
  name: string
  description: string
  public_name: string
  public_about: string
  listId: string
  subscribers: number
  version: string
}
type Words = Pick<List, 'name' | 'description' | 'public_name' | 'public_about'>
const {
  rows: lists,
  reload,
  keeperFor,
  change,
} = useKeptRows<List, Words>({
  path: '/api/lists',
  key: ({ id }) => id,
  value: ({ name, description, public_name, public_about }) => ({
    ...{ name, description, public_name, public_about },
  }),
  body: ({ name, description, public_name, public_about }) => ({
    ...{ name, description, publicName: public_name, publicAbout: public_about },
  }),
  names: {
    name: 'Called here',
    description: 'For you to remember',
    public_name: 'Readers see',
    public_about: 'What it is about',
  },
})
const notices = useNotices()
const making = ref('')
async function save(list: List, next: Partial<Words>) {
  const before = Object.fromEntries(Object.keys(next).map((key) => [key, list[key as keyof Words]]))
  if (await change(list, next))
    notices.say(`${list.name} is changed. Letters that have not gone out follow.`, {
      label: 'Undo',
      run: () => void change(list, before),
    })
}
async function make() {
  if (!(await act('/api/lists', 'POST', { name: making.value }))) return
  making.value = ''
  await reload()
}
</script>

<template>
  <div>
    <form class="sheet flex gap-2 p-3" aria-label="New list" @submit.prevent="make">
      <input
        v-model="making"
        class="field !w-64"
        aria-label="Name of a new list"
        placeholder="Name of a new list"
      />
      <button v-may="'POST /api/lists'" class="btn" :disabled="!making.trim()">Make it</button>
    </form>
    <section v-for="list in lists" :key="list.id" class="sheet mt-3" :aria-label="list.name">
      <div class="sheet-head">
        <h2>{{ list.name }}</h2>
        <span class="muted">{{ count(list.subscribers) }} subscribed</span>
      </div>
      <div class="grid max-w-3xl grid-cols-[170px_1fr] items-center gap-x-4 gap-y-2 p-4">
        <label :for="`name-${list.id}`">Called here</label>
        <KeptInput
          :id="`name-${list.id}`"
          class="field"
          :value="list.name"
          @taken="save(list, { name: $event })"
        />
        <label :for="`about-${list.id}`">For you to remember</label>
        <KeptInput
          :id="`about-${list.id}`"
          class="field"
          :value="list.description"
          @taken="save(list, { description: $event })"
        />
        <label :for="`public-${list.id}`">Readers see</label>
        <KeptInput
          :id="`public-${list.id}`"
          class="field"
          :value="list.public_name"
          @taken="save(list, { public_name: $event })"
        />
        <label :for="`public-about-${list.id}`">What it is about</label>
        <KeptInput
          :id="`public-about-${list.id}`"
          class="field"
          :value="list.public_about"
          placeholder="Every Tuesday: where the wind will be"
          @taken="save(list, { public_about: $event })"
        />
        <span class="muted">List-Id</span>
        <span class="muted">{{ list.listId }}</span>
        <KeptState class="col-span-2" :keeper="keeperFor(list)" />
      </div>
    </section>
  </div>
</template>
