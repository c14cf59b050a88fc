<script setup>
import { onBeforeUnmount, onMounted, ref, watch } from 'vue';

const props = defineProps({
  load: { type: Function, required: true },
  pier: { type: String, required: true },
});

const level = ref(null);
const failed = ref(false);
let asked = 0;

async function ask() {
  asked += 1;
  const mine = asked;
  try {
    const found = await props.load(props.pier);
    if (mine !== asked) return;
    level.value = found;
    failed.value = false;
  } catch {
    if (mine === asked) failed.value = true;
  }
}

watch(() => props.pier, () => {
  ask();
});
onMounted(ask);
onBeforeUnmount(() => {
  asked += 1;
});
</script>

<template>
  <p v-if="failed" role="alert">No answer from {{ pier }}</p>
  <p v-else>{{ level === null ? 'Measuring …' : `${pier}: ${level}` }}</p>
</template>
