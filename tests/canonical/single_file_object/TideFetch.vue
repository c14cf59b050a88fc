<template>
  <p v-if="failed" role="alert">No answer from {{ pier }}</p>
  <p v-else>{{ level === null ? 'Measuring …' : `${pier}: ${level}` }}</p>
</template>

<script>
export default {
  name: 'TideFetch',
  props: {
    load: { type: Function, required: true },
    pier: { type: String, required: true },
  },
  data() {
    return { level: null, failed: false, asked: 0 };
  },
  watch: {
    pier() {
      this.ask();
    },
  },
  mounted() {
    this.ask();
  },
  beforeUnmount() {
    this.asked += 1;
  },
  methods: {
    async ask() {
      this.asked += 1;
      const mine = this.asked;
      try {
        const found = await this.load(this.pier);
        if (mine !== this.asked) return;
        this.level = found;
        this.failed = false;
      } catch {
        if (mine === this.asked) this.failed = true;
      }
    },
  },
};
</script>
