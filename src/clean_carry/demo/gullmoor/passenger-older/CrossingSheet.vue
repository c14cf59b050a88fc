<template>
  <article class="sheet" v-on="$listeners">
    <h4 tabindex="0" @click="toggle">{{ route.from }} – {{ route.to }}</h4>
    <transition name="slide">
      <dl v-show="unfolded">
        <template v-for="(leg, at) in legs">
          <dt :key="`t${at}`">{{ leg.name }}</dt>
          <dd :key="`d${at}`"><slot name="leg" :leg="leg">{{ leg.minutes }} min</slot></dd>
        </template>
      </dl>
    </transition>
    <footer ref="foot"><slot name="foot" :minutes="minutes" /></footer>
  </article>
</template>

<script>
import keys from './mixins/keys';

export default {
  name: 'CrossingSheet',
  mixins: [keys],
  props: { route: { type: Object, required: true }, open: Boolean },
  data() {
    return { unfolded: this.open };
  },
  computed: {
    legs() {
      return this.route.legs || [];
    },
    minutes() {
      let minutes = 0;
      for (const leg of this.legs) minutes += leg.minutes;
      return minutes;
    },
  },
  watch: {
    open(open) {
      this.unfolded = open;
    },
  },
  destroyed() {
    this.$emit('gone', this.closeKey);
  },
  methods: {
    toggle() {
      const minutes = this.minutes;
      this.unfolded = !this.unfolded;
      this.$nextTick(() => {
        this.$refs.foot.title = this.unfolded ? `${minutes} min` : '';
        this.$emit('toggled', this.unfolded);
      });
    },
  },
};
</script>
