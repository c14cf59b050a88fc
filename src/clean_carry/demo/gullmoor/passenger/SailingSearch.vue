<template>
  <form class="search" @submit.prevent="search">
    <label>
      From
      <select v-model="from">
        <option v-for="pier in piers" :key="pier" :value="pier">{{ pier }}</option>
      </select>
    </label>
    <label>To <input v-model.trim="to" placeholder="any pier" /></label>
    <label><input v-model="direct" type="checkbox" /> direct only</label>
    <button :disabled="!from">Search</button>
    <ol v-if="matching.length">
      <li v-for="(sailing, index) in matching" :key="sailing.id" :class="{ first: index === 0 }">
        {{ sailing.at }} to {{ sailing.to }}
        <button type="button" @click="$emit('pick', sailing)">Pick</button>
      </li>
    </ol>
    <p v-else>No sailings</p>
  </form>
</template>

<script>
// Finds sailings by pier; the list follows what is typed.
export default {
  name: 'SailingSearch',
  props: {
    sailings: { type: Array, default: () => [] },
    home: { type: String, default: 'Holm' },
  },
  emits: ['search', 'pick'],
  data() {
    return {
      from: this.home,
      to: '',
      direct: false,
    };
  },
  computed: {
    piers() {
      return [...new Set(this.sailings.map((sailing) => sailing.from))].sort();
    },
    // What is typed may be the beginning of a pier's name.
    matching() {
      const to = this.to.toLowerCase();
      return this.sailings.filter(
        (sailing) =>
          sailing.from === this.from &&
          sailing.to.toLowerCase().startsWith(to) &&
          (!this.direct || !sailing.via),
      );
    },
  },
  watch: {
    home(pier) {
      this.from = pier;
    },
  },
  methods: {
    search() {
      const { from, to, direct } = this;
      this.$emit('search', { from, to, direct });
    },
  },
};
</script>

<style scoped>
.search label { display: block; margin-bottom: 0.4rem; }
.search ol { padding: 0; list-style: none; }
.search li { border-top: 1px solid #d6dee5; padding: 0.3rem 0; }
.search li:hover { background: #eef5f9; }
.search .first { font-weight: bold; }
.search input::placeholder { color: #6b7a86; font-style: italic; }
</style>
