<script setup>
import { ref } from 'vue';

defineProps({
  title: { type: String, default: 'Notice' },
});

const open = ref(true);
</script>

<template>
  <section>
    <header><slot name="header"><h2>{{ title }}</h2></slot></header>
    <button type="button" @click="open = !open">{{ open ? 'Hide' : 'Show' }}</button>
    <div v-if="open" class="body"><slot /></div>
  </section>
</template>
