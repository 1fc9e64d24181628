<script setup lang="ts">
import { languageNames, type ReaderLanguage } from '~~/core/readers'

/** Lists: what they are called here, what readers see, and the List-Id that mail programs file them by. */
interface List {
  id: number
  name: string
  description: string
  public_name: string
  public_about: string
  public_often: string
  offered: number
  language: ReaderLanguage | null
  listId: string
  subscribers: number
  version: string
}
type Words = Pick<
  List,
  'name' | 'description' | 'public_name' | 'public_about' | 'public_often' | 'offered' | 'language'
>
const {
  rows: lists,
  problem: silence,
  reload,
  keeperFor,
  change,
} = useKeptRows<List, Words>({
  path: '/api/lists',
  key: ({ id }) => id,
  value: ({ name, description, public_name, public_about, public_often, offered, language }) => ({
    ...{ name, description, public_name, public_about, public_often, offered, language },
  }),
  body: ({ name, description, public_name, public_about, public_often, offered, language }) => ({
    ...{ name, description, publicName: public_name, publicAbout: public_about },
    ...{ publicOften: public_often, offered: offered === 1, language },
  }),
  names: {
    name: 'Called here',
    description: 'For you to remember',
    public_name: 'Readers see',
    public_about: 'What it is about',
    public_often: 'How often it comes',
    offered: 'On the reader’s page',
    language: 'Spoken to in',
  },
})
const languageFrom = (event: Event) =>
  ((event.target as HTMLSelectElement).value || null) as ReaderLanguage | null
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
    <p v-if="silence && !lists" class="fault p-4" role="alert">{{ silence }}</p>
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
        <label :for="`often-${list.id}`">How often it comes</label>
        <KeptInput
          :id="`often-${list.id}`"
          class="field"
          :value="list.public_often"
          placeholder="Once a week"
          @taken="save(list, { public_often: $event })"
        />
        <label :for="`language-${list.id}`">Its readers are spoken to in</label>
        <select
          :id="`language-${list.id}`"
          class="field"
          :value="list.language ?? ''"
          @change="save(list, { language: languageFrom($event) })"
        >
          <option value="">the account’s language</option>
          <option v-for="(name, code) in languageNames" :key="code" :value="code">
            {{ name }}
          </option>
        </select>
        <span>On the reader’s page</span>
        <label class="flex items-center gap-2"
          ><input
            type="checkbox"
            :checked="list.offered === 1"
            @change="save(list, { offered: Number(($event.target as HTMLInputElement).checked) })"
          />everybody may join it by themselves</label
        >
        <span class="muted">List-Id</span>
        <span class="muted">{{ list.listId }}</span>
        <KeptState class="col-span-2" :keeper="keeperFor(list)" />
      </div>
    </section>
  </div>
</template>
