<template>
  <div class="search">
    <input type="search" v-model="text" placeholder="Berth or ship">
    <ol>
      <li v-for="berth in found" :key="berth.name">{{ berth.name }}<span v-if="berth.ship"> · {{ berth.ship }}</span></li>
    </ol>
    <p>{{ found.length }} of {{ berths.length }}</p>
    <button type="button" v-if="text" @click="text = ''">Clear</button>
  </div>
</template>

<script>
export default {
  name: 'BerthSearch',
  props: { berths: { type: Array, default: () => [] } },
  data() {
    return { text: '' };
  },
  computed: {
    found() {
      const wanted = this.text.trim().toLowerCase();
      return this.berths.filter((berth) => berth.name.toLowerCase().includes(wanted));
    },
  },
};
</script>
