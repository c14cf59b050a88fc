<template>
  <table :data-harbour="harbour">
    <tr v-for="berth in rows" :key="berth.id" :class="{ busy: berth.ship, late: isLate(berth) }">
      <td>{{ berth.name }}</td>
      <td>{{ berth.ship || 'free' }}</td>
      <td><button @click="free(berth)" :disabled="!berth.ship">free</button></td>
    </tr>
    <tfoot>
      <tr>
        <td colspan="3">{{ summary }} · {{ hour }} · {{ first }}</td>
      </tr>
    </tfoot>
  </table>
</template>

<script>
export default {
  name: 'BerthBoard',
  props: {
    harbour: { type: String, default: 'Skail' },
    start: { type: String, default: '08:30' },
    berths: {
      type: Array,
      default: () => [
        { id: 1, name: 'A', ship: 'Tern', due: 7 },
        { id: 2, name: 'B', ship: '', due: 0 },
      ],
    },
  },
  emits: ['freed'],
  data() {
    const [hour, minute] = this.start.split(':').map(Number);
    const first = hour * 60 + minute;
    return { hour, minute, first, rows: this.berths.map((berth) => ({ ...berth })), freed: 0 };
  },
  computed: {
    summary() {
      return this.rows.filter(function (berth) {
        return berth.ship && !this.isLate(berth);
      }, this).length;
    },
  },
  watch: {
    berths: {
      handler(berths) {
        this.rows = berths.map((berth) => ({ ...berth }));
      },
    },
    'rows.length'(now, before) {
      this.$emit('freed', now - before);
    },
  },
  mounted() {
    this.timer = setInterval(() => {
      this.minute += 10;
      if (this.minute >= 60) {
        this.minute -= 60;
        this.hour = (this.hour + 1) % 24;
      }
    }, 10000);
  },
  beforeUnmount() {
    clearInterval(this.timer);
  },
  methods: {
    isLate(berth) {
      return Boolean(berth.ship) && berth.due < this.hour;
    },
    free(berth) {
      berth.ship = '';
      this.freed++;
      this.$emit('freed', berth.id);
    },
  },
};
</script>
