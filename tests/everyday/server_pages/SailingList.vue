<template>
  <section class="sailings">
    <h2>{{ title }}</h2>
    <p v-if="loading" class="wait">Loading sailings…</p>
    <p v-else-if="failed" class="error">The sailings could not be loaded.</p>
    <template v-else>
      <ul>
        <li v-for="sailing in sailings" :key="sailing.id" :class="{ late: sailing.minutes > 0 }">
          <strong>{{ sailing.route }}</strong>
          <span>{{ sailing.leaves }}</span>
          <em v-if="sailing.minutes > 0">{{ sailing.minutes }} minutes late</em>
        </li>
      </ul>
      <p>{{ sailings.length }} sailings, {{ lateCount }} late</p>
    </template>
  </section>
</template>

<script>
export default {
  name: 'SailingList',
  props: {
    title: { type: String, default: 'Today' },
  },
  data() {
    return { sailings: [], loading: true, failed: false };
  },
  computed: {
    lateCount() {
      return this.sailings.filter((sailing) => sailing.minutes > 0).length;
    },
  },
  mounted() {
    fetch('/api/sailings')
      .then((reply) => reply.json())
      .then((sailings) => {
        this.sailings = sailings;
        this.loading = false;
      })
      .catch(() => {
        this.failed = true;
        this.loading = false;
      });
  },
};
</script>
