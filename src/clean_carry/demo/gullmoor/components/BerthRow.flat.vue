<script setup lang="ts">
import { onMounted, ref, watch } from 'vue';

const props = defineProps<{ berth: { id: string; metres: number; free: boolean }; fits: boolean; chosen: boolean; onChoose: (id: string) => void }>();

const output = ref<HTMLElement | null>(null);
let handlers = 0;

function count() {
  handlers += 1;
  if (output.value) output.value.dataset.handlers = String(handlers);
}

onMounted(count);
watch(() => props.onChoose, count, { flush: 'post' });
</script>

<template>
  <li>
    <button type="button" :disabled="!fits" :aria-pressed="chosen" @click="onChoose(berth.id)">{{ berth.id }}</button> <small ref="output">{{ berth.metres }} m</small>
  </li>
</template>
