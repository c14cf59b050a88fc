<template>
  <div>
    <p v-for="line in lines" :key="line.kind" @click="add(line.kind)">
      {{ line.kind }} {{ amounts[line.kind] || 0 }} × {{ format(line.price) }}
    </p>
    <strong>{{ format(total) }}</strong>
    <button @click="clear()">clear</button>
    <em v-if="saved">{{ saved.total }}</em>
  </div>
</template>

<script>
import { defineComponent } from 'vue';

const cache = {};
const money = {
  data() {
    return { currency: 'GMF' };
  },
  methods: {
    format(amount) {
      return `${amount.toFixed(2)} ${this.currency}`;
    },
  },
};

export default defineComponent({
  name: 'FareTable',
  mixins: [money],
  props: {
    lines: {
      type: Array,
      default: () => [
        { kind: 'adult', price: 12 },
        { kind: 'bike', price: 3.5 },
      ],
    },
    id: { type: String, default: 'main' },
  },
  emits: ['total'],
  data() {
    return { amounts: {}, saved: cache[this.id] || null };
  },
  computed: {
    total() {
      return this.lines.reduce((sum, line) => sum + line.price * (this.amounts[line.kind] || 0), 0);
    },
  },
  created() {
    this.unwatch = this.$watch('total', function (now, before) {
      this.$emit('total', now, before);
      if (now > 50) this.unwatch();
    });
    this.$watch(
      () => this.amounts.bike,
      (bikes) => {
        if (bikes > 2) this.currency = 'GMF (bikes)';
      }
    );
  },
  unmounted() {
    cache[this.id] = { total: this.total };
  },
  methods: {
    add(kind) {
      this.amounts[kind] = (this.amounts[kind] || 0) + 1;
    },
    clear() {
      this.amounts = {};
    },
  },
});
</script>
