<script setup>
import { computed, ref } from 'vue';

const props = defineProps({
  departures: { type: Array, required: true },
});

const lateOnly = ref(false);
const shown = computed(() => (lateOnly.value ? props.departures.filter((one) => one.late) : props.departures));

function toggle() {
  lateOnly.value = !lateOnly.value;
}
</script>

<template>
  <section>
    <button type="button" @click="toggle">{{ lateOnly ? 'All' : 'Late only' }}</button>
    <ul v-if="shown.length > 0">
      <li v-for="(one, index) in shown" :key="one.id">
        {{ index + 1 }}. {{ one.to }} <em v-if="one.late">late</em>
      </li>
    </ul>
    <p v-else>No departure</p>
  </section>
</template>
