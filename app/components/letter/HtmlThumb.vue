<script setup lang="ts">
/** A small picture of what a path answers as HTML, asked for when it comes into sight. */
const props = defineProps<{ path: string; title: string }>()
const html = ref('')
const frame = ref<HTMLElement | null>(null)
const SCALE = 0.36
const HEIGHT = 190
let seen = false
async function draw() {
  const got = await request<{ html: string }>(props.path).catch(() => null)
  if (got) html.value = got.html
}
onMounted(() => {
  const watching = new IntersectionObserver(([entry]) => {
    if (!entry?.isIntersecting) return
    watching.disconnect()
    seen = true
    void draw()
  })
  watching.observe(frame.value!)
})
watch(
  () => props.path,
  () => seen && void draw(),
)
</script>

<template>
  <span
    ref="frame"
    class="block w-full flex-none overflow-hidden border-b border-line-soft bg-[#eceee7]"
    :style="{ height: `${HEIGHT}px` }"
  >
    <iframe
      v-if="html"
      :srcdoc="html"
      sandbox=""
      tabindex="-1"
      aria-hidden="true"
      :title="title"
      class="pointer-events-none origin-top-left border-0"
      :style="{
        width: `${100 / SCALE}%`,
        height: `${HEIGHT / SCALE}px`,
        transform: `scale(${SCALE})`,
      }"
    />
  </span>
</template>
