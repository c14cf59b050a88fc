<template>
  <form class="booking" @submit.prevent="send">
    <p v-if="sent" class="done">Thank you, {{ name }}. {{ cars }} {{ cars === 1 ? 'car' : 'cars' }} noted.</p>
    <template v-else>
      <label>Name <input v-model="name"></label>
      <label>Cars <input type="number" v-model.number="cars"></label>
      <ul v-if="faults.length" class="faults">
        <li v-for="fault in faults" :key="fault">{{ fault }}</li>
      </ul>
      <button type="submit">Book</button>
    </template>
    <button v-if="sent" type="button" @click="again">Another one</button>
  </form>
</template>

<script>
export default {
  name: 'BookingForm',
  data() {
    return { name: '', cars: 0, sent: false, faults: [] };
  },
  methods: {
    send() {
      this.faults = [];
      if (this.name.trim() === '') {
        this.faults.push('A name is missing.');
      }
      if (this.cars > 3) {
        this.faults.push('Three cars at most.');
      }
      if (this.faults.length === 0) {
        this.sent = true;
      }
    },
    again() {
      this.name = '';
      this.cars = 0;
      this.sent = false;
    },
  },
};
</script>
