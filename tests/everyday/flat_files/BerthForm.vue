<template>
  <form class="berth-form" @submit.prevent="submit">
    <label>
      Vessel
      <input ref="first" v-model.trim="form.vessel" name="vessel" required>
    </label>
    <label>
      Length
      <input v-model.number="form.length" type="number" min="1">
    </label>
    <label>
      Nights
      <select v-model="nights">
        <option :value="1">one</option>
        <option :value="2">two</option>
        <option :value="7">a week</option>
      </select>
    </label>
    <label><input v-model="form.power" type="checkbox"> shore power</label>
    <p v-if="problems.length" class="problems" role="alert">
      <span v-for="problem in problems" :key="problem">{{ problem }}</span>
    </p>
    <output>{{ price }} crowns</output>
    <button type="submit" :disabled="!ready">Book</button>
    <button type="button" @click="reset">Clear</button>
  </form>
</template>

<script setup>
import { computed, nextTick, reactive, ref } from 'vue';

const props = defineProps({
  rate: { type: Number, default: 12 },
  longest: { type: Number, default: 30 },
});
const emit = defineEmits({
  book: (berth) => typeof berth.vessel === 'string',
  clear: null,
});

const first = ref(null);
const form = reactive({ vessel: '', length: 8, power: false, stay: { nights: 1 } });
const tried = ref(false);

const nights = computed({
  get: () => form.stay.nights,
  set(value) {
    form.stay.nights = Number(value);
  },
});

const problems = computed(() => {
  const found = [];
  if (!form.vessel) found.push('A vessel needs a name');
  if (form.length > props.longest) found.push(`No berth is longer than ${props.longest} m`);
  return tried.value ? found : [];
});
const ready = computed(() => form.vessel !== '' && form.length <= props.longest);
const price = computed(() => {
  const base = form.length * props.rate * nights.value;
  return form.power ? base + 5 * nights.value : base;
});

function submit() {
  tried.value = true;
  if (!ready.value) return;
  emit('book', { ...form, stay: { ...form.stay }, price: price.value });
}

async function reset() {
  Object.assign(form, { vessel: '', length: 8, power: false });
  form.stay.nights = 1;
  tried.value = false;
  emit('clear');
  await nextTick();
  first.value.focus();
}
</script>

<style>
.berth-form .problems { color: #a33; }
</style>
