<template>
  <section>
    <button type="button" @click="toggle">{{ lateOnly ? 'All' : 'Late only' }}</button>
    <ul v-if="shown.length > 0">
      <li v-for="(one, index) in shown" :key="one.id">
        {{ index + 1 }}. {{ one.to }} <em v-if="one.late">late</em>
      </li>
    </ul>
    <p v-else>No departure</p>
  </section>
</template>

<script>
export default {
  name: 'DepartureList',
  props: {
    departures: { type: Array, required: true },
  },
  data() {
    return { lateOnly: false };
  },
  computed: {
    shown() {
      return this.lateOnly ? this.departures.filter((one) => one.late) : this.departures;
    },
  },
  methods: {
    toggle() {
      this.lateOnly = !this.lateOnly;
    },
  },
};
</script>
