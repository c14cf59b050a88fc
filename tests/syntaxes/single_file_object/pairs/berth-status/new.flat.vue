<script setup>
import { computed, ref, watch } from 'vue';
import { FREE } from './berths';

const word = (n) => (n === 1 ? 'berth' : 'berths');

/* What is free at one pier. */
defineOptions({ name: 'BerthStatus' });

// the pier, as painted on the board
const props = defineProps(['pier', 'night']);
const emit = defineEmits(['pick', 'close']);

// picked so far
const picked = ref(0);
const note = ref('');
const open = ref(false);

const sum = computed(() => {
  return left.value * 2 + 1;
});

// those that are left
const left = computed(() => {
  return FREE - picked.value;
});

watch(picked, (now, before) => {
  if (now > before) note.value = `more: ${now}`;
});

function pick() {
  picked.value++;
  note.value = `${word(picked.value)}!`;
  emit('pick', picked.value, { night: props.night });
}

// forgets everything
function forget() {
  picked.value = 0;
  note.value = '';
}
</script>

<template>
  <section class="berths">
    <button
      type="button"
      :aria-expanded="open"
      @click="open = !open"
    >
      Pier {{ picked }} of
      many
    </button>
    <div v-if="open">
      <p v-if="picked === 0">all</p>
      <!-- between -->
      <p v-else-if="left > 1" :title="note">{{ left }} and {{ sum }}</p>
      <p v-else>few</p>
      <hr>
      <input placeholder="Name &amp; boat" maxlength="3" disabled>
    </div>
    <label for="x" tabindex="0" data-a @keydown="picked += 2">{{ open }}</label>
    <slot></slot>
    <slot name="foot"><b>none</b></slot>
    <button type="button" @click="pick()">Pick</button>
    <button type="button" @click="forget()">Forget</button>
    <button type="button" @click="$emit('close')">Close</button>
  </section>
</template>

<style>
.berths > hr { color: red; }
</style>
