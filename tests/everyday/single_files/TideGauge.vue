<template>
  <div class="gauge" :style="{ '--level': level }">
    <button @click="this.level++">{{ this.level }}</button>
    <button @click="level = $props.max">full</button>
    <meter :value="level" :max="max"></meter>
    <p>{{ words }} {{ text }}</p>
  </div>
</template>

<script>
const words = ['low', 'middle', 'high'];

export default {
  name: 'TideGauge',
  props: {
    max: { type: Number, default: 6 },
    modelValue: { type: Number, default: 2 },
    color: { type: String, default: 'teal' },
  },
  emits: ['update:modelValue'],
  data(vm) {
    return { level: vm.modelValue, changes: 0 };
  },
  computed: {
    words() {
      return words[Math.min(words.length - 1, Math.floor((this.level / this.max) * words.length))];
    },
    text: {
      get() {
        return `${this.level}/${this.max} after ${this.changes}`;
      },
      set(text) {
        this.level = Number(text.split('/')[0]);
      },
    },
  },
  watch: {
    modelValue(now) {
      this.level = now;
    },
    level(now, before) {
      this.changes++;
      if (now > this.max) {
        this.$nextTick(() => (this.text = `${before}/`));
        return;
      }
      this.$emit('update:modelValue', now);
    },
  },
};
</script>

<style scoped>
.gauge {
  color: v-bind(color);
}
meter {
  width: 10rem;
}
</style>
