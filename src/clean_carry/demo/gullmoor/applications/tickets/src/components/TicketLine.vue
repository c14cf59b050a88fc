<template>
  <li>
    {{ trip.to }} <fare-tag :amount="trip.fare * seats" />
    <seat-picker @change="seats = $event" />
  </li>
</template>

<script>
import FareTag from './FareTag.vue';
import SeatPicker from './SeatPicker.vue';

export default {
  name: 'TicketLine',
  components: { FareTag, SeatPicker },
  props: { trip: { type: Object, required: true } },
  data() {
    return { seats: 1 };
  },
};
</script>
