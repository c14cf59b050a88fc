<template>
  <ul class="berths">
    <li v-for="(berth, at) in berths" :key="berth.name" :title="berth.name + ', ' + berth.depth.toFixed(1) + ' m'">
      <b>{{ at + 1 }}</b> {{ berth.name }}
      <ol v-if="berth.ships.length">
        <li v-for="ship in berth.ships" :key="ship" :style="{ fontWeight: ship === marked ? 'bold' : 'normal' }">{{ ship }}</li>
      </ol>
      <em v-else>free</em>
    </li>
  </ul>
</template>

<script>
export default {
  name: 'QuayBerths',
  props: {
    berths: { type: Array, default: () => [] },
    marked: { type: String, default: '' },
  },
};
</script>
