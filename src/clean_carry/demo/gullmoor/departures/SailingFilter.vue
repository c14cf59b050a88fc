<template>
  <section class="filter">
    <label>To <input type="search" v-model="text" placeholder="Island"></label>
    <label><input type="checkbox" v-model="direct"> direct only</label>
    <ul>
      <li v-for="sailing in shown" :key="sailing.id">{{ sailing.time }} {{ sailing.to }}<span v-if="sailing.stops"> · {{ sailing.stops }} {{ sailing.stops === 1 ? 'stop' : 'stops' }}</span></li>
    </ul>
    <p v-if="shown.length === 0">No sailing found.</p>
    <button v-if="text || direct" type="button" @click="clear">Show all</button>
  </section>
</template>

<script>
export default {
  name: 'SailingFilter',
  props: { sailings: { type: Array, default: () => [] } },
  data() {
    return { text: '', direct: false };
  },
  computed: {
    shown() {
      const wanted = this.text.trim().toLowerCase();
      return this.sailings.filter((sailing) => sailing.to.toLowerCase().includes(wanted) && (!this.direct || sailing.stops === 0));
    },
  },
  methods: {
    clear() {
      this.text = '';
      this.direct = false;
    },
  },
};
</script>
