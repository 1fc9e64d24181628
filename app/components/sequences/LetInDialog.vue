<script setup lang="ts">
/** Chooses the running sequence that people are let into by hand. */
defineProps<{
  /** Who they are. */ about: string
  busy?: boolean
}>()
const emit = defineEmits<{ close: []; done: [sequence: { id: number; name: string }] }>()
const { answer, problem } = useAnswer<{ id: number; name: string; state: string }[]>(
  () => '/api/sequences',
)
const running = computed(() => answer.value?.filter(({ state }) => state === 'running') ?? null)
const wanted = ref('')
const chosen = computed(() => running.value?.find(({ id }) => String(id) === wanted.value))
</script>

<template>
  <BaseDialog open title="Let them into a sequence" @close="emit('close')">
    <p>{{ about }}</p>
    <p v-if="problem" class="fault mt-3" role="alert">{{ problem }}</p>
    <p v-else-if="!running" class="muted mt-3" role="status">Asking which run…</p>
    <p v-else-if="!running.length" class="mt-3">
      No sequence runs just now.
      <NuxtLink class="link" to="/sequences">See sequences</NuxtLink>
    </p>
    <template v-else>
      <label class="mt-3 grid gap-1"
        ><span class="muted">Sequence</span>
        <select v-model="wanted" class="field">
          <option value="">choose one that runs</option>
          <option v-for="one in running" :key="one.id" :value="String(one.id)">
            {{ one.name }}
          </option>
        </select></label
      >
      <p class="muted small mt-3">
        Who is subscribed to its list and is not inside comes in, if its rule and how often one may
        come let them. The first mail goes out when its step is due.
      </p>
    </template>
    <template #actions>
      <button type="button" class="btn" @click="emit('close')">Cancel</button>
      <button
        type="button"
        class="btn btn-go"
        :disabled="!chosen || busy"
        @click="chosen && emit('done', chosen)"
      >
        Let them in
      </button>
    </template>
  </BaseDialog>
</template>
