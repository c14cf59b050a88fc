<script setup>
import { computed, onActivated, onDeactivated, readonly, ref, useTemplateRef, watch } from 'vue'

const { crew, shift = 'day', limit = 3 } = defineProps({
  crew: { type: Array, required: true },
  shift: String,
  limit: Number,
})
const emit = defineEmits(['assign', 'over'])

const assigned = ref({})
const search = ref('')
const paused = ref(false)
const box = useTemplateRef('box')
const rules = readonly({ rest: 8 })

const matching = computed(() => {
  const text = search.value.toLowerCase()
  return crew.filter((one) => one.name.toLowerCase().includes(text))
})
const count = computed(() => Object.values(assigned.value).filter((s) => s === shift).length)
const free = computed(() => limit - count.value)

function assign(one) {
  if (assigned.value[one.id] === shift) {
    delete assigned.value[one.id]
  } else {
    assigned.value[one.id] = shift
  }
  emit('assign', one.id, assigned.value[one.id] ?? null)
}

function clear() {
  assigned.value = {}
  search.value = ''
  box.value.focus()
}

watch(count, (now, before) => {
  if (now > limit && before <= limit) emit('over', now - limit)
}, { flush: 'sync' })

onActivated(() => {
  paused.value = false
})
onDeactivated(() => {
  paused.value = true
})
</script>

<template>
  <section class="crew-shift" :hidden="paused">
    <h3>{{ shift }} shift, {{ free }} free (rest {{ rules.rest }} h)</h3>
    <input ref="box" v-model="search" type="search">
    <ul>
      <li v-for="one in matching" :key="one.id">
        <label>
          <input type="checkbox" :checked="assigned[one.id] === shift" @change="assign(one)">
          {{ one.name }} <em v-if="one.role">{{ one.role }}</em>
        </label>
      </li>
    </ul>
    <button type="button" @click="clear">Clear</button>
  </section>
</template>
