<template>
  <time :datetime="stamp" @click="toggle">{{ show(stamp) }}<slot name="zone" :zone="zone" :shift="shift" /></time>
</template>

<script>
function formatted(minutes, long) {
  const text = `${Math.floor(minutes / 60) % 24}:${String(minutes % 60).padStart(2, '0')}`;
  return long ? `${text} h` : text;
}

export default {
  name: 'QuayClock',
  inject: { zones: { default: () => ({ quay: 1 }) } },
  props: { minutes: { type: Number, default: 600 }, place: { type: String, default: 'quay' } },
  data() {
    return { passed: 0, long: false, zone: this.zones[this.place] || 0 };
  },
  computed: {
    stamp() {
      return this.minutes + this.passed + this.zone * 60;
    },
  },
  watch: {
    stamp(stamp, before) {
      if (Math.floor(stamp / 60) !== Math.floor(before / 60)) this.$emit('hour', Math.floor(stamp / 60));
    },
  },
  activated() {
    this.long = false;
  },
  mounted() {
    var vm = this;
    this.timer = window.setInterval(function () {
      vm.passed++;
    }, 60000);
    this.$watch('passed', function (passed) {
      if (passed === 2) this.$emit('two', this.stamp);
    });
  },
  beforeDestroy() {
    window.clearInterval(this.timer);
    this.$emit('stopped', this.passed);
  },
  destroyed() {
    this.$emit('destroyed', this.passed);
  },
  methods: {
    show(stamp) {
      return formatted(stamp, this.long);
    },
    toggle() {
      this.long = !this.long;
    },
    shift(by) {
      this.zone += by;
    },
  },
};
</script>
