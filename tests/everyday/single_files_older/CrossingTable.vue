<template>
  <table>
    <tr v-for="crossing in sorted" :key="crossing.id" :class="{ picked: crossing === picked }">
      <td @click="pick(crossing)">{{ crossing.to }}</td>
      <td>{{ crossing.minutes | duration }}</td>
      <td><button @click="$emit('book', crossing.id)">book</button></td>
    </tr>
    <caption>{{ this.picked ? this.picked.to : 'none' }} {{ ticks }} {{ $data.order }}</caption>
  </table>
</template>

<script>
export default {
  name: 'CrossingTable',
  filters: {
    duration: (minutes) => `${Math.floor(minutes / 60)}h ${minutes % 60}m`,
  },
  props: {
    crossings: {
      type: Array,
      default: () => [
        { id: 1, to: 'Holm', minutes: 95 },
        { id: 2, to: 'Skail', minutes: 40 },
      ],
    },
  },
  data() {
    return { order: 'to', picked: null, ticks: 0 };
  },
  computed: {
    sorted() {
      return this.crossings.slice().sort((a, b) => (a[this.order] > b[this.order] ? 1 : -1));
    },
  },
  watch: {
    'picked.minutes'(minutes) {
      this.$emit('minutes', minutes);
    },
  },
  mounted() {
    const timer = setInterval(() => this.ticks++, 1000);
    this.$once('hook:beforeDestroy', () => clearInterval(timer));
    this.$nextTick(function () {
      this.ticks = 1;
      this.$emit('ready', this.$el.rows.length);
    });
  },
  methods: {
    pick(crossing) {
      this.picked = this.picked === crossing ? null : crossing;
      this.order = this.order === 'to' ? 'minutes' : 'to';
    },
  },
};
</script>
