<script>
const COLUMNS = ['route', 'adult', 'child']
let made = 0

export default {
  name: 'FareTable',
}
</script>

<script setup>
import { computed, ref, toRef } from 'vue'
import { useSorting } from './useSorting.js'

const props = defineProps(['fares', 'currency', 'compact'])
const emit = defineEmits(['choose'])

const number = ++made
const fares = toRef(props, 'fares')
const filter = ref('')
const { sorted, column, descending, sortBy } = useSorting(fares, 'route')

const shown = computed(() => sorted.value.filter((fare) => fare.route.includes(filter.value)))
const count = computed(() => shown.value.length)

function price(value) {
  return `${value} ${props.currency || 'cr'}`
}
</script>

<template>
  <div class="fares" :data-compact="compact">
    <input v-model="filter" aria-label="Filter">
    <table>
      <thead>
        <tr>
          <th v-for="name in COLUMNS" :key="name" @click="sortBy(name)">
            {{ name }}<template v-if="name === column"> {{ descending ? '↓' : '↑' }}</template>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="fare in shown" :key="fare.route" @click="emit('choose', fare.route)">
          <td>{{ fare.route }}</td>
          <td>{{ price(fare.adult) }}</td>
          <td v-text="price(fare.child)"></td>
        </tr>
      </tbody>
    </table>
    <p>{{ count }} fares in table {{ number > 0 ? 'one' : 'none' }}</p>
  </div>
</template>
