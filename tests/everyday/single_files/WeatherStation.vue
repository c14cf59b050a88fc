<template>
  <aside :class="['station', { stale }]">
    <h4>{{ place }}</h4>
    <p v-if="error" role="alert">{{ error }}</p>
    <p v-else-if="reading">{{ reading.wind }} {{ unit }} at {{ reading.at }}</p>
    <p v-else>no reading</p>
    <button @click="load()">reload</button>
    <button @click="unit = unit === 'knots' ? 'm/s' : 'knots'">{{ unit }}</button>
    <ul><li v-for="entry in log" :key="entry">{{ entry }}</li></ul>
  </aside>
</template>

<script>
const units = ['knots', 'm/s'];

export default {
  name: 'WeatherStation',
  props: ['place', 'every'],
  emits: ['reading', 'failed'],
  data: (vm) => ({
    reading: null,
    error: '',
    unit: units[0],
    log: [],
    stale: false,
    seconds: Number(vm.every || 30),
  }),
  watch: {
    place: {
      immediate: true,
      handler: 'load',
    },
    'reading.wind'(now, before) {
      this.log.push(`${before} → ${now}`);
    },
  },
  mounted() {
    this.timer = setInterval(() => this.load(this.place), this.seconds * 1000);
  },
  beforeUnmount() {
    clearInterval(this.timer);
    this.timer = null;
  },
  methods: {
    load(place = this.place) {
      this.stale = true;
      const self = this;
      return fetch('/weather/' + (place || 'all'))
        .then((reply) => reply.json())
        .then(function (reading) {
          self.reading = reading;
          self.error = '';
          self.$emit('reading', reading);
        })
        .catch((error) => {
          this.error = 'no weather';
          this.$emit('failed', String(error.name));
        })
        .finally(() => {
          this.stale = false;
        });
    },
  },
};
</script>
