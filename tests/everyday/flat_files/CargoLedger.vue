<script setup lang="ts">
import { computed, ref } from 'vue'

interface Row {
  id: number
  name: string
  weight: number
  loaded: boolean
}

const props = withDefaults(
  defineProps<{
    vessel: string
    limit?: number
    start?: Row[]
  }>(),
  { limit: 1000, start: () => [] },
)

const emit = defineEmits<{
  (e: 'change', rows: Row[]): void
  (e: 'full', over: number): void
}>()

const rows = ref<Row[]>(props.start.map((row) => ({ ...row })))
const draft = ref('')
const weight = ref<number>(10)
let nextId = 100

const loaded = computed<number>(() =>
  rows.value.filter((row) => row.loaded).reduce((sum, row) => sum + row.weight, 0),
)
const over = computed(() => Math.max(0, loaded.value - props.limit))

function add(): void {
  const name = draft.value.trim()
  if (!name) return
  rows.value.push({ id: nextId++, name, weight: weight.value, loaded: false })
  draft.value = ''
  emit('change', rows.value)
}

function toggle(row: Row) {
  row.loaded = !row.loaded
  if (over.value > 0) emit('full', over.value)
  emit('change', rows.value)
}

function remove(index: number) {
  rows.value.splice(index, 1)
  emit('change', rows.value)
}

function lighten(id: number) {
  const found = rows.value.find((row) => row.id === id)
  if (found) found.weight = Math.max(0, found.weight - 1)
}
</script>

<template>
  <section :class="['ledger', { over: over > 0 }]">
    <h3>{{ vessel }} · {{ loaded }} of {{ limit }} kg</h3>
    <table>
      <tr v-for="(row, index) in rows" :key="row.id">
        <td>{{ index + 1 }}</td>
        <td>{{ row.name }}</td>
        <td><button type="button" @click="lighten(row.id)">{{ row.weight }}</button></td>
        <td><input type="checkbox" :checked="row.loaded" @change="toggle(row)"></td>
        <td><button type="button" class="remove" @click="remove(index)">×</button></td>
      </tr>
    </table>
    <p v-show="over > 0">{{ over }} kg too much</p>
    <input v-model="draft" placeholder="What is loaded?" @keyup.enter="add">
    <input v-model.number="weight" type="number">
    <button type="button" @click="add">Add</button>
  </section>
</template>
