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
}
const { answer: lists, reload } = useAnswer<List[]>(() => '/api/lists')
const notices = useNotices()
const making = ref('')
async function save(list: List, change: Partial<List>) {
  const body = (of: List) => ({
    name: of.name,
    description: of.description,
    publicName: of.public_name,
    publicAbout: of.public_about,
  })
  const put = async (of: List) => {
    const done = await act(`/api/lists/${list.id}`, 'PUT', body(of))
    await reload()
    return done
  }
  if (await put({ ...list, ...change }))
    notices.say(`${list.name} is changed. Letters that have not gone out follow.`, {
      label: 'Undo',
      run: () => void put(list),
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
      <button class="btn" :disabled="!making.trim()">Make it</button>
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
      </div>
    </section>
  </div>
</template>
