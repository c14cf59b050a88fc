<template>
  <section class="passengers" :style="{ '--rows': shown.length }">
    <header>
      <input ref="field" v-model.trim="filter" :placeholder="placeholder" @keydown.esc="filter = ''" />
      <select v-model="sort">
        <option v-for="one in $options.sorts" :key="one.key" :value="one.key">{{ one.label }}</option>
      </select>
      <button type="button" @click="down = !down">{{ down ? 'down' : 'up' }}</button>
      <slot name="tools" :selected="selectedValue" :clear="clear">
        <button type="button" :disabled="!selectedValue.length" @click="clear">none of {{ selectedValue.length }}</button>
      </slot>
    </header>

    <p v-if="error" role="alert">{{ error }} <button type="button" @click="load">again</button></p>
    <p v-else-if="loading">Looking at the list…</p>
    <ul v-else>
      <li v-for="(passenger, index) in shown" :key="passenger.id" ref="rows" :class="classes(passenger)">
        <label>
          <input type="checkbox" :checked="isSelected(passenger)" @change="toggle(passenger, $event)" />
          <slot name="passenger" :passenger="passenger" :index="index">{{ passenger.name }}</slot>
        </label>
        <em v-if="passenger.seat">{{ passenger.seat }}</em>
        <button v-else type="button" @click="seat(passenger)">find a seat</button>
      </li>
      <li v-if="!shown.length" class="nobody">nobody</li>
    </ul>
    <footer>{{ summary }} · {{ seated }} seated here</footer>
  </section>
</template>

<script>
function debounce(run, wait) {
  let timer;
  return function (...values) {
    clearTimeout(timer);
    timer = setTimeout(() => run.apply(this, values), wait);
  };
}

const LETTERS = 'ABCD';

// One for all instances, as the option object made it.
const tellLater = debounce((run) => run(), 400);
</script>

<script setup>
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue';

/**
 * Who is on board: looked for, sorted, selected, and given a seat. What is selected is a model of the
 * parent's.
 */
defineOptions({
  name: 'PassengerList',
  sorts: [
    { key: 'name', label: 'by name' },
    { key: 'seat', label: 'by seat' },
  ],
});

const props = defineProps({
  sailing: { type: String, required: true },
  modelValue: { type: Array, default: () => [] },
  rows: { type: Number, default: 6 },
  placeholder: { type: String, default: 'Who?' },
  accent: { type: String, default: 'teal' },
});
const emit = defineEmits(['update:modelValue', 'seated', 'found']);

const field = ref(null);

const selected = [...props.modelValue]; // a copy: the parent's is its own
const passengers = ref([]); // as they were answered
// what is looked for
const filter = ref('');
const sort = ref('name');
const down = ref(false);
const selectedValue = ref(selected);
const loading = ref(false);
const error = ref('');
const seated = ref(0);
const last = ref(null);

let cancelled;

const query = computed(() => {
  return { filter: filter.value, sort: sort.value, down: down.value };
});

const found = computed(() => {
  const needle = filter.value.toLowerCase();
  return passengers.value.filter(function (passenger) {
    return passenger.name.toLowerCase().includes(needle) || isSelected(passenger);
  });
});

const shown = computed(() => {
  const sign = down.value ? -1 : 1;
  const value = (passenger) => String(passenger[sort.value] || '');
  return [...found.value].sort((a, b) => value(a).localeCompare(value(b)) * sign).slice(0, props.rows);
});

const summary = computed(() => `${shown.value.length} of ${passengers.value.length}, ${selectedValue.value.length} selected`);

const free = computed(() => {
  const taken = new Set(passengers.value.map((passenger) => passenger.seat));
  const seats = [];
  for (let row = 1; row <= props.rows; row++) {
    for (const letter of LETTERS) if (!taken.has(`${row}${letter}`)) seats.push(`${row}${letter}`);
  }
  return seats;
});

watch(() => props.sailing, load, { immediate: true });

watch(query, tell);

watch(
  () => props.modelValue,
  (now) => {
    selectedValue.value = [...now];
  }
);

watch(selectedValue, (now) => {
  emit('update:modelValue', now);
});

watch(
  () => last.value && last.value.seat,
  (seat, before) => {
    if (seat && !before) emit('seated', seat);
  }
);

async function load() {
  loading.value = true;
  error.value = '';
  const sailing = props.sailing;
  try {
    const reply = await fetch(`/passengers?sailing=${encodeURIComponent(sailing)}`);
    const currentPassengers = await reply.json();
    if (cancelled || sailing !== props.sailing) return;
    passengers.value = currentPassengers.map((passenger) => ({ seat: '', ...passenger }));
    nextTick(function () {
      emit('found', shown.value.length);
    });
  } catch (newError) {
    error.value = 'the list did not come';
  } finally {
    loading.value = false;
  }
}

function refresh() {
  if (!document.hidden) load();
}

// One message for all lists of the page, a moment after the last change
function tell() {
  tellLater(() => {
    emit('found', found.value.length);
  });
}

function isSelected(passenger) {
  return selectedValue.value.includes(passenger.id);
}

function classes(passenger) {
  return { selected: isSelected(passenger), seated: Boolean(passenger.seat) };
}

function toggle(passenger, event) {
  selectedValue.value = event.target.checked
    ? [...selectedValue.value, passenger.id]
    : selectedValue.value.filter((id) => id !== passenger.id);
}

function seat(passenger) {
  const [seat] = free.value;
  if (!seat) {
    error.value = 'no seat is free';
    return;
  }
  last.value = passenger;
  passenger.seat = seat;
  seated.value += 1;
}

function clear() {
  selectedValue.value = [];
  focus();
}

function focus() {
  field.value?.focus();
}

onMounted(() => {
  focus();
  document.addEventListener('visibilitychange', refresh);
});

onBeforeUnmount(() => {
  document.removeEventListener('visibilitychange', refresh);
  cancelled = true;
});

defineExpose({ load, focus });
</script>

<style scoped>
.passengers {
  border-color: v-bind(accent);
}
.selected {
  font-weight: bold;
}
</style>
