<template>
  <span class="time">
    <input :value="hours" @input="change('hours', $event)" /> :
    <input :value="minutes" @input="change('minutes', $event)" />
    <button @click="$forceUpdate()">again</button>
    <em v-if="error">{{ error.message }}</em>
    {{ renders() }}
  </span>
</template>

<script>
const two = (number) => String(number).padStart(2, '0');

export default {
  name: 'TimeField',
  props: { value: { type: String, default: '07:05' }, step: { type: Number, default: 1 } },
  data() {
    const [hours, minutes] = this.value.split(':');
    const error = null;
    return { hours, minutes, error };
  },
  computed: {
    text() {
      return `${two(this.hours)}:${two(this.minutes)}`;
    },
  },
  watch: {
    value: {
      handler(value) {
        const [hours, minutes] = value.split(':');
        this.hours = hours;
        this.minutes = minutes;
      },
    },
    text(text) {
      if (!this.error) this.$emit('input', text);
    },
  },
  created() {
    this.drawn = 0;
  },
  updated() {
    this.$emit('drawn', this.drawn);
  },
  beforeDestroy() {
    this.$emit('removed', this.text);
  },
  methods: {
    renders() {
      return ++this.drawn;
    },
    change(part, { target }) {
      const number = Number(target.value);
      const most = { hours: 23, minutes: 59 };
      if (Number.isNaN(number) || number < 0 || number > most[part]) {
        this.error = new RangeError(`${part} up to ${most[part]}`);
        return;
      }
      this.error = null;
      this[part] = two(number);
    },
  },
};
</script>
