<script setup lang="ts">
import { nameOf } from '~~/core/people'
import type { WaterfallTest } from '~~/core/delivery'

/** The people who drop out of the audience at a step, 50 at a time. */
interface Person {
  id: number
  address: string
  first_name: string | null
  last_name: string | null
}
const props = defineProps<{ step: WaterfallTest; many: number }>()
const store = useMailing()
const people = ref<Person[] | null>(null)
const busy = ref(false)
async function more() {
  busy.value = true
  const offset = people.value?.length ?? 0
  const got = await ask<Person[]>(
    `/api/mailings/${store.mailing!.id}/drop-outs?step=${props.step}&offset=${offset}`,
  )
  people.value = [...(people.value ?? []), ...(got ?? [])]
  busy.value = false
}
onMounted(more)
</script>

<template>
  <div
    class="max-h-64 overflow-auto bg-ground px-3 py-2"
    tabindex="0"
    role="group"
    aria-label="Who drops out here"
  >
    <ul v-if="people" class="m-0 list-none columns-2 gap-6 p-0">
      <li v-for="person in people" :key="person.id" class="truncate py-0.5">
        <NuxtLink :to="`/people/${person.id}`" class="link">{{
          nameOf(person) || person.address
        }}</NuxtLink>{{ ' '
        }}<span v-if="nameOf(person)" class="muted small">{{ person.address }}</span>
      </li>
    </ul>
    <p v-if="people && people.length < many" class="mt-2">
      <button class="btn btn-sm" :disabled="busy" @click="more">
        {{ count(Math.min(50, many - people.length)) }} more of {{ count(many) }}
      </button>
    </p>
  </div>
</template>
