<script setup lang="ts">
/** Some of the people a rule keeps; each opens the reason why. */
const emit = defineEmits<{ why: [person: { id: number; name: string }] }>()
const store = useSegment()
const field = computed(() => store.vocabulary?.fields.find(({ key }) => !key.endsWith('_name')))
</script>

<template>
  <section class="sheet overflow-hidden" aria-labelledby="members-title">
    <div class="sheet-head">
      <h2 id="members-title">People in it</h2>
      <NuxtLink
        v-if="store.saved && !store.changed && (store.counts?.total ?? 0) > 0"
        class="link small"
        :to="`/people?segment=${store.saved.id}`"
        >All {{ count(store.counts!.total) }} in the table</NuxtLink
      >
      <span class="muted small">pulse: last 12 mailings</span>
    </div>
    <p v-if="store.counts && store.counts.total === 0" class="muted p-3.5">
      Nobody fits all of this. The numbers beside the lines show where the last people drop out.
    </p>
    <table v-else class="grid-table table-fixed">
      <thead>
        <tr>
          <th class="w-[38%]">Person</th>
          <th class="w-[104px]">Pulse</th>
          <th>{{ field?.name }}</th>
          <th>Bought</th>
          <th class="w-14"><span class="sr-only">Why</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="person in store.counts?.people" :key="person.id">
          <td>
            <NuxtLink :to="`/people/${person.id}`" class="block hover:underline">
              <span class="block truncate font-[560]">{{ person.name || person.address }}</span>
              <span v-if="person.name" class="muted small block truncate">{{
                person.address
              }}</span>
            </NuxtLink>
          </td>
          <td><PulseBars :bars="person.pulse" /></td>
          <td class="truncate">
            {{ field ? valueWords(person.values[field.key], field.kind) || '—' : '' }}
          </td>
          <td class="whitespace-nowrap">
            {{
              person.orders
                ? `${person.orders} · ${money(person.spent, store.vocabulary?.currency ?? 'GBP')}`
                : '—'
            }}
          </td>
          <td class="num">
            <button
              type="button"
              class="link small"
              @click="emit('why', { id: person.id, name: person.name || person.address })"
            >
              Why
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
