<script setup>
import { ref, watch, watchEffect, onUnmounted } from 'vue'

const props = defineProps({
  find: { type: Function, required: true },
  wait: { type: Number, default: 200 },
  initial: { type: String, default: '' },
})
const emit = defineEmits(['found', 'failed'])

const text = ref(props.initial)
const hits = ref([])
const busy = ref(false)
const message = ref('')
let pending = 0
let delay

// A late reply of an older question is dropped.
async function ask(question) {
  const mine = ++pending
  busy.value = true
  try {
    const reply = await props.find(question)
    if (mine !== pending) return
    hits.value = reply || []
    emit('found', hits.value.length)
  } catch (error) {
    if (mine !== pending) return
    message.value = error.message
    emit('failed', error.message)
  } finally {
    if (mine === pending) busy.value = false
  }
}

watch(text, (now, before, onCleanup) => {
  message.value = ''
  if (now === before.trim()) return
  delay = setTimeout(() => ask(now.trim()), props.wait)
  onCleanup(() => clearTimeout(delay))
})

watchEffect(() => {
  document.title = busy.value ? 'Searching …' : `${hits.value.length} sailings`
})

onUnmounted(() => {
  pending = -1
  clearTimeout(delay)
})
</script>

<template>
  <search class="sailing-search" :aria-busy="busy">
    <input v-model="text" type="search" aria-label="Search sailings" @keydown.esc="text = ''">
    <p v-if="busy">Searching …</p>
    <p v-else-if="message" class="failed">{{ message }}</p>
    <ul v-else-if="hits.length">
      <li v-for="hit in hits" :key="hit.id"><b>{{ hit.from }}</b> – {{ hit.to }}</li>
    </ul>
    <p v-else>No sailing yet.</p>
  </search>
</template>
