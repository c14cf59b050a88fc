<template>
  <div class="counter">
    <button type="button" :disabled="seats <= least" @click="fewer">−</button>
    <output>{{ seats }}</output>
    <button type="button" :disabled="seats >= most" @click="more">+</button>
    <p>{{ seats === 1 ? 'one seat' : seats + ' seats' }}, {{ (seats * fare).toFixed(2) }}</p>
    <label><input type="checkbox" v-model="bikes"> with bicycles</label>
    <p v-if="bikes">Bicycles travel on the car deck.</p>
    <button type="button" @click="reset">Start again</button>
  </div>
</template>

<script>
export default {
  name: 'SeatCounter',
  props: {
    least: { type: Number, default: 1 },
    most: { type: Number, default: 9 },
    fare: { type: Number, default: 12.5 },
  },
  data() {
    return { seats: 1, bikes: false };
  },
  methods: {
    more() {
      if (this.seats < this.most) {
        this.seats += 1;
      }
    },
    fewer() {
      if (this.seats > this.least) this.seats--;
    },
    reset() {
      this.seats = this.least;
      this.bikes = false;
    },
  },
};
</script>
