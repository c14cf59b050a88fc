<template>
  <main>
    <h2>{{ $route.params.sailing || 'Basket' }}</h2>
    <ul>
      <li v-for="line in lines" :key="line.id">{{ line.name }} × {{ line.amount }}</li>
    </ul>
    <p>{{ count }} {{ owner }}</p>
    <button @click="add({ id: lines.length + 1, name: 'Ticket', amount: 1 })">add</button>
    <button @click="pay" :disabled="paying">pay</button>
    <button @click="leave">leave</button>
  </main>
</template>

<script>
import { mapState, mapGetters, mapActions } from 'vuex';

export default {
  name: 'BasketPage',
  emits: ['paid'],
  data() {
    return { paying: false, tries: 0 };
  },
  computed: {
    ...mapState({ lines: (state) => state.basket.lines }),
    ...mapState(['owner']),
    ...mapGetters('basket', ['count']),
  },
  watch: {
    '$route.params.sailing'(now) {
      if (now) this.tries = 0;
    },
  },
  beforeRouteLeave(to, from, next) {
    next(!this.paying);
  },
  methods: {
    ...mapActions('basket', ['add']),
    async pay() {
      this.paying = true;
      this.tries++;
      try {
        await this.$store.dispatch('basket/pay', this.tries);
        this.$emit('paid', this.count);
      } finally {
        this.paying = false;
      }
    },
    leave() {
      this.$router.push({ name: 'home', query: { from: this.$route.name } });
    },
  },
};
</script>
