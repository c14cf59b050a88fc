<script setup>
import { ref } from 'vue';

const props = defineProps({
  name: { type: String, required: true },
  depth: { type: Number, default: 4 },
  free: { type: Boolean, default: true },
});
const emit = defineEmits(['pick']);

const picked = ref(0);

function pick() {
  picked.value += 1;
  emit('pick', props.name);
}
</script>

<template>
  <article class="berth">
    <h3>{{ name }}: {{ depth }} m</h3>
    <button type="button" :disabled="!free" @click="pick">Picked {{ picked }} times</button>
  </article>
</template>
