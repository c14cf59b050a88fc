<template>
  <nav @mouseleave="leave">
    <button :aria-expanded="String(open)" @click="open = !open">{{ current ? current.label : 'menu' }}</button>
    <ul v-if="open">
      <li v-for="item in entries" :key="item.id">
        <slot name="item" v-bind="{ item, select, active: item === current }">
          <a href="#" :class="{ active: item === current }" @click.prevent="select(item)">{{ item.label }}</a>
        </slot>
      </li>
    </ul>
    <small>{{ count }}</small>
  </nav>
</template>

<script>
const closing = (wait) => ({
  data() {
    return { open: false };
  },
  methods: {
    leave() {
      clearTimeout(this.closeTimer);
      this.closeTimer = setTimeout(() => {
        this.open = false;
      }, wait);
    },
  },
});

export default {
  name: 'HarbourMenu',
  mixins: [closing(300)],
  props: {
    items: { type: Array, default: () => [{ id: 1, label: 'Sailings' }, { id: 2, label: 'Cargo' }] },
    start: { type: Number, default: 0 },
  },
  data() {
    return { selected: this.start, count: 0 };
  },
  computed: {
    entries() {
      return this.items.filter((item) => !item.hidden);
    },
    current: {
      get() {
        return this.entries.find((item) => item.id === this.selected) || null;
      },
      set(item) {
        this.selected = item ? item.id : 0;
      },
    },
  },
  watch: {
    open(open) {
      this.$emit(open ? 'open' : 'close', this.count);
    },
    'current.label'(label, before) {
      this.count++;
      this.$emit('label', label, before);
    },
  },
  beforeDestroy() {
    clearTimeout(this.closeTimer);
  },
  methods: {
    select(item) {
      this.current = this.current === item ? null : item;
      this.leave();
    },
  },
};
</script>
