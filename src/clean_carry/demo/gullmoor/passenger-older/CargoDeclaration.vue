<template>
  <fieldset class="cargo">
    <legend>{{ title }}</legend>
    <div v-for="(item, at) in items" :key="at">
      <input v-model.lazy="item.what" :aria-label="`item ${at + 1}`" @change="declare" />
      <input type="checkbox" :checked="item.heavy" @click="mark(at, !item.heavy)" />
    </div>
    <button type="button" :disabled="items.length >= most" @click="items.push({ what: '' })">
      Add
    </button>
    <button type="button" @click="$emit('update:title', `${title}!`)">Stress</button>
    <small>{{ heavy }} heavy, changed {{ changes }} times</small>
  </fieldset>
</template>

<script>
export default {
  name: 'CargoDeclaration',
  model: { prop: 'cargo', event: 'declared' },
  props: {
    cargo: { type: Array, default: () => [] },
    title: { type: String, default: 'Cargo' },
    most: { type: Number, default: 3 },
  },
  data() {
    return { items: this.cargo.map((what) => ({ what, heavy: false })), changes: 0 };
  },
  computed: {
    heavy() {
      return this.items.filter((item) => item.heavy).length;
    },
  },
  watch: {
    // Also runs where an item is added in place.
    items() {
      this.changes += 1;
    },
    'items.length': {
      handler(now, before) {
        this.$emit('counted', now, before);
      },
    },
  },
  methods: {
    declare() {
      this.$emit('declared', this.items.map((item) => item.what));
    },
    mark(at, heavy) {
      this.$set(this.items, at, { ...this.items[at], heavy });
    },
  },
};
</script>
