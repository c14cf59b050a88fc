<script setup>
import { computed, nextTick, onMounted, onUpdated, ref, shallowRef, watch } from 'vue'

const props = defineProps({
  decks: { type: Array, default: () => [{ id: 'a', name: 'Upper' }, { id: 'b', name: 'Car' }] },
  modelValue: { type: String, default: '' },
})
const emit = defineEmits(['update:modelValue', 'ready'])

const buttons = ref([])
const list = ref(null)
const plan = shallowRef({ deck: '', rows: [] })
const updates = ref(0)
let counted = 0

const index = computed(() => props.decks.findIndex((deck) => deck.id === props.modelValue))

function choose(deck) {
  emit('update:modelValue', deck.id)
  plan.value = { deck: deck.id, rows: [1, 2, 3].map((row) => `${deck.name} ${row}`) }
}

async function step(by) {
  const next = (index.value + by + props.decks.length) % props.decks.length
  choose(props.decks[next])
  await nextTick()
  buttons.value[next]?.focus()
}

function onKey(event) {
  if (event.key === 'ArrowDown') step(1)
  else if (event.key === 'ArrowUp') step(-1)
  else return
  event.preventDefault()
}

watch(() => props.modelValue, (now) => {
  const deck = props.decks.find((one) => one.id === now)
  if (deck && plan.value.deck !== now) plan.value = { deck: now, rows: [] }
}, { immediate: true })

onMounted(() => {
  list.value.dataset.ready = 'yes'
  emit('ready')
})
onUpdated(() => {
  counted += 1
})
</script>

<template>
  <div ref="list" class="deck-picker" role="listbox" @keydown="onKey">
    <button
      v-for="(deck, at) in decks"
      :key="deck.id"
      ref="buttons"
      type="button"
      role="option"
      :aria-selected="at === index"
      @click="choose(deck)"
    >{{ deck.name }}</button>
    <ul v-if="plan.rows.length">
      <li v-for="row in plan.rows" :key="row">{{ row }}</li>
    </ul>
    <p v-else>No plan for {{ plan.deck || 'any deck' }}</p>
    <button type="button" @click="updates++">{{ updates }}</button>
  </div>
</template>
