<template>
  <section class="finder">
    <label>From <input v-model="from" @keyup.enter="search" /></label>
    <select v-model="day">
      <option v-for="one in $options.days" :key="one">{{ one }}</option>
    </select>
    <p v-if="loading">Looking…</p>
    <ul v-else>
      <li v-for="sailing in results" :key="sailing.id" @click="choose(sailing)">
        {{ sailing.time }} {{ this.from }}
      </li>
    </ul>
    <p>{{ $data.asked }} searches, {{ $props.limit }} at most</p>
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

export default {
  name: 'SailingFinder',
  days: ['today', 'tomorrow'],
  props: { limit: { type: Number, default: 5 } },
  emits: ['choose', 'found'],
  data() {
    return { from: '', day: 'today', results: [], loading: false, asked: 0 };
  },
  computed: {
    query() {
      return { from: this.from, day: this.day };
    },
  },
  watch: {
    query: 'later',
    results(now, before) {
      this.$emit('found', now.length, before.length);
    },
  },
  methods: {
    later: debounce(function () {
      this.search();
    }, 250),
    async search() {
      this.asked++;
      this.loading = true;
      const asked = this.asked;
      const reply = await fetch(`/sailings?from=${this.from}&day=${this.day}`);
      const rows = await reply.json();
      if (asked !== this.asked) return;
      this.results = rows.slice(0, this.limit);
      this.loading = false;
    },
    choose(sailing) {
      this.$emit('choose', sailing);
      this.$nextTick(function () {
        this.from = sailing.time;
      });
    },
  },
};
</script>
