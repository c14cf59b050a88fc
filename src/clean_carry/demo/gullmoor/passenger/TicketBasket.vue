<template>
  <section class="basket">
    <h3>Basket of {{ passenger }}</h3>
    <ul>
      <li v-for="(line, at) in lines" :key="line.id">
        <slot name="line" :line="line" :total="price(line)">{{ line.count }} × {{ line.name }}</slot>
        <button type="button" :aria-label="`one more ${line.name}`" @click="line.count++">+</button>
        <button type="button" :aria-label="`drop ${line.name}`" @click="drop(at)">drop</button>
      </li>
    </ul>
    <p v-show="lines.length">Total <b ref="sum">{{ total.toFixed(2) }}</b></p>
    <input v-model.number="voucher" type="number" min="0" aria-label="Voucher" />
    <button type="button" :disabled="total <= 0" @click="pay">Pay</button>
  </section>
</template>

<script>
let baskets = 0;

export default {
  name: 'TicketBasket',
  inheritAttrs: true,
  props: { passenger: { type: String, required: true }, items: { type: Array, default: () => [] } },
  emits: ['update:count', 'paid'],
  data() {
    return {
      id: `basket-${++baskets}`,
      lines: this.items.map((item) => ({ ...item, count: 1 })),
      discount: 0,
    };
  },
  computed: {
    total() {
      const sum = this.lines.reduce((all, line) => all + this.price(line), 0);
      return Math.max(0, sum - this.discount);
    },
    voucher: {
      get() {
        return this.discount;
      },
      set(worth) {
        this.discount = Number(worth) || 0;
      },
    },
  },
  watch: {
    lines: {
      handler(lines) {
        this.$emit(
          'update:count',
          lines.reduce((all, line) => all + line.count, 0),
        );
      },
      deep: true,
      immediate: true,
    },
    items(items) {
      const known = new Map(this.lines.map((line) => [line.id, line.count]));
      this.lines = items.map((item) => ({ ...item, count: known.get(item.id) ?? 1 }));
    },
  },
  methods: {
    price(line) {
      return line.count * line.price;
    },
    drop(at) {
      this.lines.splice(at, 1);
    },
    async pay() {
      const total = this.total;
      await this.$nextTick();
      this.$emit('paid', total, this.$refs.sum.textContent);
    },
  },
};
</script>
