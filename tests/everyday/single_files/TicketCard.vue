<template>
  <article v-bind="$attrs" :class="kind">
    <header><slot name="title" :reset="reset">{{ title }}</slot></header>
    <p>{{ holder.name }} {{ nights }}</p>
    <ticket-stub :on-tear="tear" :torn="torn"></ticket-stub>
    <footer v-if="$slots.default"><slot /></footer>
  </article>
</template>

<script>
import { h } from 'vue';

const anybody = { name: 'anybody' };

export default {
  name: 'TicketCard',
  components: {
    TicketStub: {
      props: ['onTear', 'torn'],
      render() {
        return h('button', { onClick: () => this.$emit('tear', 1) }, this.torn ? 'torn' : 'tear');
      },
    },
  },
  inheritAttrs: false,
  props: {
    title: { type: String, required: true },
    kind: { type: String, default: 'plain', validator: (kind) => ['plain', 'cabin'].includes(kind) },
    holder: { type: Object, default: () => anybody },
    from: { type: Date, default: null },
  },
  emits: ['torn'],
  data() {
    return { torn: false, tears: 0, nights: this.from ? this.from.getDate() : 0 };
  },
  watch: {
    torn(torn) {
      if (torn) this.$emit('torn', { title: this.title, tears: this.tears });
    },
    title: 'reset',
  },
  methods: {
    tear(by) {
      this.tears += by;
      this.torn = true;
    },
    reset() {
      this.torn = false;
      this.$nextTick().then(() => {
        this.tears = 0;
      });
    },
  },
};
</script>
