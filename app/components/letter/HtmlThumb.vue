<script setup lang="ts">
/** A small picture of what a path answers as HTML, asked for when it comes into sight. */
const props = withDefaults(
  defineProps<{ path: string; title: string; scale?: number; height?: number }>(),
  { scale: 0.36, height: 190 },
)
const html = ref('')
const frame = ref<HTMLElement | null>(null)
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
    :style="{ height: `${height}px` }"
  >
    <iframe
      v-if="html"
      :srcdoc="framed(html)"
      sandbox=""
      tabindex="-1"
      aria-hidden="true"
      :title="title"
      class="pointer-events-none origin-top-left border-0"
      :style="{
        width: `${100 / scale}%`,
        height: `${height / scale}px`,
        transform: `scale(${scale})`,
      }"
    />
  </span>
</template>
