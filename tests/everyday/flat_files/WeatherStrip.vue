<script setup lang="ts">
import { onBeforeMount, onBeforeUpdate, reactive, ref, shallowReactive, watch, watchEffect, watchPostEffect } from 'vue'

type Hour = { at: string; wind: number; gust?: number }

const { hours = [], threshold = 20, place } = defineProps<{
  hours?: Hour[]
  threshold?: number
  place: string
}>()
const emit = defineEmits<{ warn: [gust: number]; place: [name: string] }>()

const strip = ref<HTMLElement | null>(null)
const state = reactive({ worst: 0, opened: [] as string[] })
const marks = shallowReactive<Record<string, boolean>>({})
const width = ref(0)
const started = ref('')
let redrawn = 0

watch(
  [() => hours, () => threshold],
  ([now, limit]) => {
    const gusts = now.map((hour) => hour.gust ?? hour.wind)
    state.worst = gusts.length ? Math.max(...gusts) : 0
    if (state.worst > limit) emit('warn', state.worst)
  },
  { immediate: true },
)

watch(() => place, (now) => emit('place', now), { flush: 'post' })
watch(
  () => state.opened,
  (opened) => {
    for (const at of opened) marks[at] = true
  },
  { deep: true },
)

watchEffect((onCleanup) => {
  const tag = `${place}:${state.worst}`
  document.body.dataset.weather = tag
  onCleanup(() => {
    delete document.body.dataset.weather
  })
})
watchPostEffect(() => {
  width.value = strip.value ? strip.value.childElementCount * (hours.length > 0 ? 1 : 0) : 0
})

onBeforeMount(() => {
  started.value = `at ${place}`
})
onBeforeUpdate(() => {
  redrawn += 1
})

function open(hour: Hour) {
  if (!state.opened.includes(hour.at)) state.opened.push(hour.at)
}
</script>

<template>
  <div ref="strip" class="strip" :style="{ '--worst': state.worst, borderWidth: state.worst > threshold ? '2px' : '1px' }">
    <h4>{{ place }} {{ started }} ({{ width }})</h4>
    <button v-for="hour in hours" :key="hour.at" type="button" :class="{ seen: marks[hour.at] }" @click="open(hour)">
      {{ hour.at }} <b v-if="hour.wind > threshold">{{ hour.wind }}!</b><span v-else>{{ hour.wind }}</span>
    </button>
    <p>{{ state.opened.length ? state.opened.join(', ') : 'none opened' }}</p>
  </div>
</template>
