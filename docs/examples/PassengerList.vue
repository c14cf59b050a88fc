<template>
  <section class="passengers" :style="{ '--rows': shown.length }">
    <header>
      <input ref="field" v-model.trim="filter" :placeholder="placeholder" @keydown.esc="filter = ''" />
      <select v-model="sort">
        <option v-for="one in $options.sorts" :key="one.key" :value="one.key">{{ one.label }}</option>
      </select>
      <button type="button" @click="this.down = !this.down">{{ this.down ? 'down' : 'up' }}</button>
      <slot name="tools" :selected="selected" :clear="clear">
        <button type="button" :disabled="!selected.length" @click="clear">none of {{ selected.length }}</button>
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
    <footer>{{ summary }} · {{ $data.seated }} seated here</footer>
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

/**
 * Who is on board: looked for, sorted, selected, and given a seat. What is selected is a model of the
 * parent's.
 */
export default {
  name: 'PassengerList',
  sorts: [
    { key: 'name', label: 'by name' },
    { key: 'seat', label: 'by seat' },
  ],
  props: {
    sailing: { type: String, required: true },
    modelValue: { type: Array, default: () => [] },
    rows: { type: Number, default: 6 },
    placeholder: { type: String, default: 'Who?' },
    accent: { type: String, default: 'teal' },
  },
  emits: ['update:modelValue', 'seated', 'found'],
  expose: ['load', 'focus'],
  data(vm) {
    const selected = [...vm.modelValue]; // a copy: the parent's is its own
    return {
      passengers: [], // as they were answered
      // what is looked for
      filter: '',
      sort: 'name',
      down: false,
      selected,
      loading: false,
      error: '',
      seated: 0,
      last: null,
    };
  },
  computed: {
    query() {
      return { filter: this.filter, sort: this.sort, down: this.down };
    },
    found() {
      const needle = this.filter.toLowerCase();
      return this.passengers.filter(function (passenger) {
        return passenger.name.toLowerCase().includes(needle) || this.isSelected(passenger);
      }, this);
    },
    shown() {
      const sign = this.down ? -1 : 1;
      const value = (passenger) => String(passenger[this.sort] || '');
      return [...this.found].sort((a, b) => value(a).localeCompare(value(b)) * sign).slice(0, this.rows);
    },
    summary: (vm) => `${vm.shown.length} of ${vm.passengers.length}, ${vm.selected.length} selected`,
    free() {
      const taken = new Set(this.passengers.map((passenger) => passenger.seat));
      const seats = [];
      for (let row = 1; row <= this.rows; row++) {
        for (const letter of LETTERS) if (!taken.has(`${row}${letter}`)) seats.push(`${row}${letter}`);
      }
      return seats;
    },
  },
  watch: {
    sailing: { immediate: true, handler: 'load' },
    query: 'tell',
    modelValue(now) {
      this.selected = [...now];
    },
    selected(now) {
      this.$emit('update:modelValue', now);
    },
    'last.seat'(seat, before) {
      if (seat && !before) this.$emit('seated', seat);
    },
  },
  mounted() {
    this.focus();
    document.addEventListener('visibilitychange', this.refresh);
  },
  beforeUnmount() {
    document.removeEventListener('visibilitychange', this.refresh);
    this.cancelled = true;
  },
  methods: {
    async load() {
      this.loading = true;
      this.error = '';
      const { sailing } = this;
      try {
        const reply = await fetch(`/passengers?sailing=${encodeURIComponent(sailing)}`);
        const passengers = await reply.json();
        if (this.cancelled || sailing !== this.sailing) return;
        this.passengers = passengers.map((passenger) => ({ seat: '', ...passenger }));
        this.$nextTick(function () {
          this.$emit('found', this.shown.length);
        });
      } catch (error) {
        this.error = 'the list did not come';
      } finally {
        this.loading = false;
      }
    },
    refresh() {
      if (!document.hidden) this.load();
    },
    // One message for all lists of the page, a moment after the last change
    tell: debounce(function () {
      this.$emit('found', this.found.length);
    }, 400),
    isSelected(passenger) {
      return this.selected.includes(passenger.id);
    },
    classes(passenger) {
      return { selected: this.isSelected(passenger), seated: Boolean(passenger.seat) };
    },
    toggle(passenger, event) {
      this.selected = event.target.checked
        ? [...this.selected, passenger.id]
        : this.selected.filter((id) => id !== passenger.id);
    },
    seat(passenger) {
      const [seat] = this.free;
      if (!seat) {
        this.error = 'no seat is free';
        return;
      }
      this.last = passenger;
      passenger.seat = seat;
      this.seated += 1;
    },
    clear() {
      this.selected = [];
      this.focus();
    },
    focus() {
      this.$refs.field?.focus();
    },
  },
};
</script>

<style scoped>
.passengers {
  border-color: v-bind(accent);
}
.selected {
  font-weight: bold;
}
</style>
