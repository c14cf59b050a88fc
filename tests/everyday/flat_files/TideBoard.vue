<script setup>
import { ref, computed, watch, onMounted, onBeforeUnmount } from 'vue'

const props = defineProps({
  harbour: { type: String, default: 'Gullmoor' },
  readings: { type: Array, default: () => [] },
  refresh: { type: Number, default: 60 },
})

const emit = defineEmits(['refresh', 'select'])

const unit = ref('m')
const selected = ref(null)
const ticks = ref(0)
let timer = null

// Highest water of the day, in the unit chosen.
const highest = computed(() => {
  if (!props.readings.length) return null
  return Math.max(...props.readings.map(r => r.height))
})
const label = computed(() => (highest.value === null ? 'no readings' : show(highest.value)))

function show(height) {
  return unit.value === 'm' ? `${height.toFixed(1)} m` : `${Math.round(height * 3.28)} ft`
}

function pick(reading) {
  selected.value = selected.value === reading.time ? null : reading.time
  emit('select', selected.value)
}

const toggleUnit = () => {
  unit.value = unit.value === 'm' ? 'ft' : 'm'
}

watch(() => props.harbour, () => {
  selected.value = null
})

onMounted(() => {
  timer = setInterval(() => {
    ticks.value++
    if (ticks.value % 2 === 0) emit('refresh', ticks.value)
  }, props.refresh * 1000)
})

onBeforeUnmount(() => {
  clearInterval(timer)
})
</script>

<template>
  <section class="tide-board">
    <header>
      <h2>Tides at {{ harbour }}</h2>
      <button type="button" @click="toggleUnit">{{ unit }}</button>
    </header>
    <p class="highest">Highest: {{ label }}</p>
    <ol v-if="readings.length">
      <li
        v-for="reading in readings"
        :key="reading.time"
        :class="{ chosen: reading.time === selected, low: reading.height < 1 }"
        @click="pick(reading)"
      >
        <time>{{ reading.time }}</time>
        <span>{{ show(reading.height) }}</span>
      </li>
    </ol>
    <p v-else>Nothing measured yet.</p>
    <small>refreshed {{ ticks }} times</small>
  </section>
</template>

<style scoped>
.tide-board header { display: flex; justify-content: space-between; }
.chosen { font-weight: bold; }
.low { color: #a33; }
</style>
