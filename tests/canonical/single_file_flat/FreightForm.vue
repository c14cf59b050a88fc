<script setup>
import { ref } from 'vue';

const emit = defineEmits(['send']);

const what = ref('');
const fragile = ref(false);
const size = ref('small');

function send() {
  if (!what.value) return;
  emit('send', { what: what.value, fragile: fragile.value, size: size.value });
  what.value = '';
}
</script>

<template>
  <form @submit.prevent="send">
    <input v-model="what">
    <label><input v-model="fragile" type="checkbox"> fragile</label>
    <select v-model="size">
      <option value="small">small</option>
      <option value="large">large</option>
    </select>
    <p>{{ what }} {{ size }}</p>
    <button type="submit" :disabled="!what">Send</button>
  </form>
</template>
