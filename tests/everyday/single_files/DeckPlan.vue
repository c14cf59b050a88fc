<template>
  <div class="plan" @keydown.esc="close">
    <deck-level v-for="level in levels" :key="level" ref="decks" :level="level" @open="opened = $event" />
    <p>{{ opened === null ? 'all closed' : `deck ${opened}` }} {{ total }}</p>
    <button @click="closeAll">close all</button>
    <button @click="tally">tally</button>
  </div>
</template>

<script>
import { h } from 'vue';

const DeckLevel = {
  name: 'DeckLevel',
  props: { level: Number },
  emits: ['open'],
  data() {
    return { open: false, visits: 0 };
  },
  methods: {
    toggle(open = !this.open) {
      this.open = open;
      if (open) this.$emit('open', this.level);
    },
  },
  render() {
    return h('button', { onClick: () => { this.visits++; this.toggle(); } }, `${this.level} ${this.open ? 'open' : 'shut'}`);
  },
};

export default {
  name: 'DeckPlan',
  components: { DeckLevel },
  props: { levels: { type: Array, default: () => [1, 2, 3] } },
  data() {
    return { opened: null, total: 0 };
  },
  methods: {
    close() {
      this.opened = null;
    },
    closeAll() {
      this.$refs.decks.forEach(function (deck) {
        deck.toggle(false);
        this.opened = null;
      }, this);
    },
    tally() {
      this.total = this.$refs.decks.reduce((sum, deck) => sum + deck.visits, 0);
    },
  },
};
</script>
