<script setup>
import { computed, readonly, ref } from 'vue'

const seats = defineModel({ type: Number, default: 1 })
const name = defineModel('name', { type: String, default: '' })

const props = defineProps({
  capacity: { type: Number, default: 6 },
  prices: { type: Object, default: () => ({ adult: 8, child: 4 }) },
})
const emit = defineEmits(['full'])

const children = ref(0)
const history = ref([])
const past = readonly(history)

const adults = computed(() => seats.value - children.value)
const total = computed(() => adults.value * props.prices.adult + children.value * props.prices.child)

function change(by) {
  const next = Math.min(props.capacity, Math.max(1, seats.value + by))
  if (next === seats.value) return
  history.value.push(seats.value)
  seats.value = next
  if (children.value > next) children.value = next
  if (next === props.capacity) emit('full')
}

function undo() {
  if (!history.value.length) return
  seats.value = history.value.pop()
}

defineExpose({ undo, total })
</script>

<template>
  <fieldset class="seats">
    <legend>{{ name || 'Nobody' }}</legend>
    <input v-model="name" aria-label="Name">
    <button type="button" :disabled="seats <= 1" @click="change(-1)">−</button>
    <output>{{ seats }}</output>
    <button type="button" :disabled="seats >= capacity" @click="change(1)">+</button>
    <input v-model.number="children" type="range" min="0" :max="seats" aria-label="Children">
    <p>{{ adults }} adults, {{ children }} children: {{ total }} crowns</p>
    <button v-if="past.length" type="button" @click="undo">Undo ({{ past.length }})</button>
  </fieldset>
</template>
