<script setup lang="ts">
import type { MoreAct } from '../common/MoreMenu.vue'

/** What is done with a sign-up as a whole, as far as its state and one's role allow. */
const props = defineProps<{
  state: string
  /** What the draft can be tested against, in words; empty: it can’t be now. */
  test: string
  versions: boolean
}>()
const emit = defineEmits<{
  versions: []
  test: []
  labels: []
  copy: []
  pause: []
  resume: []
  end: []
  remove: []
}>()
const acts = computed(() => {
  const stands = props.state === 'live' || props.state === 'paused'
  const all: MoreAct[] = [
    {
      name: props.test,
      handler: 'POST /api/sign-ups/[id]/publish',
      offered: props.test !== '',
      run: () => emit('test'),
    },
    {
      name: 'Versions…',
      handler: 'GET /api/sign-ups/[id]/versions/[version]',
      offered: props.versions,
      run: () => emit('versions'),
    },
    {
      name: 'Pause',
      handler: 'POST /api/sign-ups/[id]/pause',
      offered: props.state === 'live',
      run: () => emit('pause'),
    },
    {
      name: 'Go on',
      handler: 'POST /api/sign-ups/[id]/resume',
      offered: props.state === 'paused',
      run: () => emit('resume'),
    },
    {
      name: 'Labels…',
      handler: 'POST /api/labels',
      offered: true,
      run: () => emit('labels'),
    },
    {
      name: 'Make a copy',
      handler: 'POST /api/sign-ups/[id]/copy',
      offered: true,
      run: () => emit('copy'),
    },
    {
      name: 'End…',
      handler: 'POST /api/sign-ups/[id]/end',
      offered: stands,
      run: () => emit('end'),
    },
    {
      name: 'Delete',
      handler: 'DELETE /api/sign-ups/[id]',
      offered: true,
      run: () => emit('remove'),
    },
  ]
  return all
})
</script>

<template>
  <MoreMenu :acts="acts" />
</template>
