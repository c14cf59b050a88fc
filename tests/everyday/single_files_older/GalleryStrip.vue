<template>
  <div class="strip" @wheel="turn">
    <img v-for="(picture, index) in shown" :key="picture" :src="picture" :alt="$options.caption(index)" @load="loaded(index)" @error="failed.push(index)" />
    <button @click="back" :disabled="at === 0">back</button>
    <button @click="next()" :disabled="!(at + size < pictures.length)">next</button>
    <p>{{ at + 1 }} of {{ pictures.length }} {{ ready.length }}/{{ failed.length }}</p>
  </div>
</template>

<script>
import Vue from 'vue';

const bus = new Vue();

export default {
  name: 'GalleryStrip',
  caption: (index) => `picture ${index}`,
  bus,
  props: { pictures: { type: Array, default: () => ['a.png', 'b.png', 'c.png'] }, size: { type: Number, default: 2 } },
  data: () => ({ at: 0, ready: [], failed: [] }),
  computed: {
    shown() {
      return this.pictures.slice(this.at, this.at + this.size);
    },
  },
  watch: {
    pictures: {
      immediate: true,
      handler() {
        this.at = 0;
        this.ready = [];
      },
    },
    at: ['announce', function (at) { this.$emit('at', at); }],
  },
  created() {
    bus.$on('strip-next', this.next);
  },
  beforeDestroy() {
    bus.$off('strip-next', this.next);
  },
  methods: {
    announce(at, before) {
      this.$emit('moved', at - before);
    },
    loaded(index) {
      if (this.ready.indexOf(index) < 0) this.ready.push(index);
    },
    back() {
      this.at = Math.max(0, this.at - 1);
    },
    next(by = 1) {
      if (this.at + this.size < this.pictures.length) this.at += by;
    },
    turn({ deltaY }) {
      deltaY > 0 ? this.next() : this.back();
    },
  },
};
</script>
