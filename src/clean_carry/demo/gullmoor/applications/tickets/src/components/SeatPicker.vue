<template>
  <p>
    <button type="button" :disabled="seats === 1" @click="change(-1)">fewer</button>
    {{ seats }} {{ seats === 1 ? 'seat' : 'seats' }}
    <button type="button" @click="change(1)">more</button>
  </p>
</template>

<script>
export default {
  name: 'SeatPicker',
  props: { start: { type: Number, default: 1 } },
  emits: ['change'],
  data() {
    return { seats: this.start };
  },
  methods: {
    change(by) {
      this.seats += by;
      this.$emit('change', this.seats);
    },
  },
};
</script>
