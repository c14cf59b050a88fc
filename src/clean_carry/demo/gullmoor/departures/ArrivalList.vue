<template>
  <section class="arrivals">
    <h3>Arrivals at {{ quay }}</h3>
    <p v-if="loading" class="wait">Asking the harbour…</p>
    <p v-else-if="failed" class="failed">The harbour does not answer.</p>
    <ul v-else>
      <li v-for="arrival in arrivals" :key="arrival.ship" :class="{ late: arrival.late > 0 }">
        {{ arrival.time }} {{ arrival.ship }}
      </li>
    </ul>
    <p v-if="lateOnes > 0">{{ lateOnes }} of {{ arrivals.length }} late</p>
  </section>
</template>

<script>
export default {
  name: 'ArrivalList',
  props: { quay: { type: String, default: 'Holm' } },
  data() {
    return { arrivals: [], loading: true, failed: false };
  },
  computed: {
    lateOnes() {
      return this.arrivals.filter((arrival) => arrival.late > 0).length;
    },
  },
  async mounted() {
    try {
      const reply = await fetch(`/api/arrivals/${this.quay}`);
      if (!reply.ok) throw new Error('no arrivals');
      this.arrivals = await reply.json();
    } catch (error) {
      this.failed = true;
    } finally {
      this.loading = false;
    }
  },
};
</script>
