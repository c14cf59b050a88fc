<template>
  <form class="hold" @submit.prevent="hold">
    <button type="button" :disabled="seats <= 1" @click="seats--">−</button>
    <output>{{ seats }}</output>
    <button type="button" :disabled="seats >= most" @click="seats++">+</button>
    <p>{{ seats === 1 ? 'one seat' : seats + ' seats' }}, {{ (seats * fare).toFixed(2) }}</p>
    <p v-if="held > 0" role="status">{{ held }} held for you</p>
    <button type="submit">Hold</button>
  </form>
</template>

<script>
export default {
  name: 'SeatHold',
  props: {
    most: { type: Number, default: 6 },
    fare: { type: Number, default: 12.5 },
  },
  data() {
    return { seats: 1, held: 0 };
  },
  methods: {
    hold() {
      // Seats on hold stay on hold.
      this.held += this.seats;
      this.seats = 1;
    },
  },
};
</script>
