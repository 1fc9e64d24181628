<script setup lang="ts">
import { alreadyThere, type Start } from '~~/core/sequences'

/** Whether who fits a start already comes in when the sequence starts, with how many that are before. */
const props = defineProps<{ start: Start }>()
const emit = defineEmits<{ change: [already: true | undefined] }>()
const store = useSequence()
const of = computed(() => store.sequence!)
/** It holds once: where it runs with it, nobody more comes in by it. */
const isOver = computed(() => of.value.published?.start.already === true)
const { answer, problem, loading } = useAnswer<{ people: number }>(
  () =>
    props.start.already && !isOver.value && of.value.listId !== null
      ? // Counted anew for each start and list.
        `/api/sequences/${of.value.id}/people?already=1&of=${of.value.revision}`
      : null,
  { live: false },
)
</script>

<template>
  <div v-if="alreadyThere(start)" class="grid gap-1">
    <label class="flex items-center gap-2"
      ><input
        type="checkbox"
        :checked="start.already === true"
        @change="emit('change', ($event.target as HTMLInputElement).checked ? true : undefined)"
      />
      who fits already comes in, too</label
    >
    <template v-if="start.already">
      <p v-if="isOver" class="muted small">They came in when it started so.</p>
      <p v-else-if="of.listId === null" class="muted small">Choose its list to see how many.</p>
      <p v-else-if="problem && !loading" class="fault small" role="alert">{{ problem }}</p>
      <p v-else class="small" role="status">
        <template v-if="!loading && answer && store.waits === null"
          >{{ people(answer.people) }} on the list come in when it starts.</template
        ><template v-else>Counting…</template>
      </p>
    </template>
  </div>
</template>
