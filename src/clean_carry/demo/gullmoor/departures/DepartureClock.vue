<template>
  <p class="clock"><time>{{ now }}</time> · {{ minutes }} minutes to go</p>
</template>

<script>
export default {
  name: 'DepartureClock',
  props: { leaves: { type: Number, required: true } },
  data() {
    return { now: '', minutes: 0, timer: 0 };
  },
  mounted() {
    this.timer = setInterval(this.tick, 1000);
    this.tick();
  },
  beforeUnmount() {
    clearInterval(this.timer);
  },
  methods: {
    tick() {
      const date = new Date();
      this.now = date.toTimeString().slice(0, 8);
      this.minutes = Math.round((this.leaves - date.getTime()) / 60000);
    },
  },
};
</script>
