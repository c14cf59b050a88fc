<template>
  <figure class="tide">
    <div class="bars">
      <i v-for="(level, at) in shown" :key="at" :style="{ height: level * 10 + 'px' }" :class="{ high: level >= high }"></i>
    </div>
    <figcaption>
      {{ station }}: <span v-if="levels.length">highest {{ Math.max(...levels).toFixed(1) }} m, mean {{ mean.toFixed(2) }} m</span><span v-else>no data</span>
    </figcaption>
  </figure>
</template>

<script>
export default {
  name: 'TideStrip',
  props: {
    station: { type: String, required: true },
    levels: { type: Array, default: () => [] },
    most: { type: Number, default: 6 },
    high: { type: Number, default: 3 },
  },
  computed: {
    shown() {
      return this.levels.slice(0, this.most);
    },
    mean() {
      return this.levels.reduce((sum, level) => sum + level, 0) / this.levels.length;
    },
  },
};
</script>
