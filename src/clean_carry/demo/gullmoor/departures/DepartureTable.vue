<template>
  <table class="departures">
    <caption>{{ quay }}</caption>
    <tbody>
      <tr v-for="sailing in sailings" :key="sailing.id" :class="{ cancelled: sailing.cancelled, late: sailing.delay > 0 }">
        <td>{{ sailing.time }}</td>
        <td>{{ sailing.to }}</td>
        <td v-if="sailing.cancelled">cancelled</td>
        <td v-else-if="sailing.delay > 0">{{ sailing.delay }} min late</td>
        <td v-else>on time</td>
      </tr>
      <tr v-if="!sailings.length"><td colspan="3">No sailings today</td></tr>
    </tbody>
    <tfoot><tr><td colspan="3">{{ running }} of {{ sailings.length }} sail</td></tr></tfoot>
  </table>
</template>

<script>
export default {
  name: 'DepartureTable',
  props: {
    quay: { type: String, default: 'Gullmoor' },
    sailings: { type: Array, default: () => [] },
  },
  computed: {
    running() {
      return this.sailings.filter((sailing) => !sailing.cancelled).length;
    },
  },
};
</script>
