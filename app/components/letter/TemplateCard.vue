<script setup lang="ts">
/** A template as a small picture of its letter: computed when it comes into sight. */
const props = defineProps<{ templateKey: string; name: string; about: string }>()
const emit = defineEmits<{ choose: [] }>()
const html = ref('')
const card = ref<HTMLElement | null>(null)
const SCALE = 0.36
onMounted(() => {
  const watching = new IntersectionObserver(async ([entry]) => {
    if (!entry?.isIntersecting) return
    watching.disconnect()
    const got = await request<{ html: string }>(`/api/templates/${props.templateKey}`).catch(
      () => null,
    )
    if (got) html.value = got.html
  })
  watching.observe(card.value!)
})
</script>

<template>
  <button
    ref="card"
    type="button"
    class="sheet flex flex-col overflow-hidden text-left hover:border-brass-500 focus-visible:border-brass-500"
    @click="emit('choose')"
  >
    <span
      class="block h-[190px] w-full flex-none overflow-hidden border-b border-line-soft bg-[#eceee7]"
    >
      <iframe
        v-if="html"
        :srcdoc="html"
        sandbox=""
        tabindex="-1"
        aria-hidden="true"
        :title="name"
        class="pointer-events-none origin-top-left border-0"
        :style="{
          width: `${100 / SCALE}%`,
          height: `${190 / SCALE}px`,
          transform: `scale(${SCALE})`,
        }"
      />
    </span>
    <span class="block px-3.5 py-2.5">
      <b class="font-[600]">{{ name }}</b>
      <span class="muted small block">{{ about }}</span>
    </span>
  </button>
</template>
