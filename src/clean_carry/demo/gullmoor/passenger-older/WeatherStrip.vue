<template>
  <div class="weather" :class="[`is-${state}`, { stormy: strongest > 8 }]">
    <p v-if="state === 'loading'">Asking the lighthouse…</p>
    <p v-else-if="state === 'failed'">
      No forecast: {{ reason }} <button type="button" @click="load">Again</button>
    </p>
    <ul v-else>
      <li v-for="hour in hours" :key="hour.at">
        {{ hour.at }} {{ hour.wind | force }}<template v-if="hour.rain">, rain</template>
      </li>
    </ul>
  </div>
</template>

<script>
export default {
  name: 'WeatherStrip',
  filters: {
    force(wind) {
      return `force ${wind}`;
    },
  },
  props: { island: { type: String, required: true } },
  data() {
    return {
      hours: [],
      state: 'loading',
      reason: '',
    };
  },
  computed: {
    strongest() {
      return this.hours.reduce((most, hour) => Math.max(most, hour.wind), 0);
    },
  },
  watch: {
    island() {
      this.load();
    },
    hours(hours) {
      this.$emit('forecast', hours.length);
    },
  },
  created() {
    this.load();
  },
  methods: {
    async load() {
      const island = this.island;
      this.state = 'loading';
      try {
        const reply = await fetch(`/api/weather/${island}`);
        if (!reply.ok) throw new Error(`status ${reply.status}`);
        const { hours } = await reply.json();
        // The island may have changed meanwhile.
        if (island !== this.island) return;
        this.hours.splice(0, this.hours.length, ...hours);
        this.state = 'there';
      } catch (error) {
        this.reason = error.message;
        this.state = 'failed';
      }
    },
  },
};
</script>

<style scoped>
.weather ul { display: flex; gap: 1rem; padding: 0; list-style: none; }
.weather.stormy { color: #8a1c1c; }
.weather.is-loading p { font-style: italic; }
.weather li:nth-child(2n) { color: #456173; }
@media (max-width: 480px) {
  .weather ul { flex-direction: column; gap: 0.25rem; }
}
</style>
