<template>
  <transition-group tag="ul" name="notice">
    <li v-for="notice in notices" :key="notice.key" :class="notice.kind">
      {{ notice.text }}
      <button @click="drop(notice.key)">×</button>
    </li>
  </transition-group>
</template>

<script>
let last = 0;
const timers = new Map();

export default {
  name: 'NoticeStack',
  props: { wait: { type: Number, default: 3000 }, most: { type: Number, default: 3 }, first: String },
  emits: ['empty'],
  data() {
    return { notices: [], dropped: 0 };
  },
  created() {
    if (this.first) this.show(this.first);
  },
  mounted() {
    document.addEventListener('visibilitychange', this.pause);
  },
  beforeUnmount() {
    document.removeEventListener('visibilitychange', this.pause);
    this.notices.forEach((notice) => clearTimeout(timers.get(notice.key)));
  },
  watch: {
    'notices.length'(count) {
      if (!count) this.$emit('empty', this.dropped);
    },
  },
  methods: {
    show(text, kind = 'plain') {
      const key = ++last;
      this.notices.push({ key, text, kind });
      while (this.notices.length > this.most) this.drop(this.notices[0].key);
      timers.set(key, setTimeout(this.drop, this.wait, key));
      return key;
    },
    drop(key) {
      clearTimeout(timers.get(key));
      timers.delete(key);
      this.notices = this.notices.filter((notice) => notice.key !== key);
      this.dropped++;
    },
    pause() {
      timers.forEach(clearTimeout);
    },
  },
};
</script>

<style scoped>
.warn {
  font-weight: bold;
}
</style>
