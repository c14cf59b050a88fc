<template>
  <div class="clock" role="timer">
    <template v-if="left > 0">
      <strong>{{ minutes }}:{{ String(left % 60).padStart(2, '0') }}</strong>
      <slot :left="left">until boarding closes</slot>
    </template>
    <em v-else>Boarding has closed</em>
    <button v-if="running" type="button" @click="pause">Pause</button>
    <button v-else type="button" :disabled="left <= 0" @click="start">Go on</button>
  </div>
</template>

<script>
export default {
  name: 'BoardingClock',
  props: { seconds: { type: Number, default: 90 } },
  emits: { closed: null, paused: (left) => left >= 0 },
  data: () => ({ left: 0, running: false }),
  computed: {
    minutes() {
      return Math.floor(this.left / 60);
    },
  },
  watch: { seconds: 'restart' },
  created() {
    this.left = this.seconds;
  },
  mounted() {
    this.start();
  },
  beforeUnmount() {
    clearInterval(this.timer);
  },
  methods: {
    start() {
      clearInterval(this.timer);
      this.running = true;
      this.timer = setInterval(() => {
        this.left -= 1;
        if (this.left > 0) return;
        this.pause();
        this.$emit('closed');
      }, 1000);
    },
    pause() {
      clearInterval(this.timer);
      this.running = false;
      if (this.left > 0) this.$emit('paused', this.left);
    },
    restart(seconds) {
      this.left = seconds;
      this.start();
    },
  },
};
</script>
