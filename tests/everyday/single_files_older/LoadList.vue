<template>
  <form @submit.prevent="add">
    <ul>
      <li v-for="(item, index) in items" :key="item.id">
        <input v-model="item.label" @change="changed(index)" />
        <button type="button" @click="remove(index)">remove</button>
      </li>
    </ul>
    <input v-model.trim="draft" placeholder="New item" />
    <button :disabled="!draft">add</button>
    <p>{{ weight }} {{ message }}</p>
  </form>
</template>

<script>
let next = 1;

export default {
  name: 'LoadList',
  props: { value: { type: Array, default: () => [] }, limit: { type: Number, default: 4 } },
  data() {
    return { draft: '', items: this.value.map((label) => ({ id: next++, label })), message: '', extra: {} };
  },
  computed: {
    weight() {
      return Object.values(this.extra).reduce((sum, one) => sum + one, 0);
    },
  },
  watch: {
    items: {
      deep: true,
      handler() {
        this.$emit('input', this.items.map((item) => item.label));
      },
    },
  },
  created() {
    this.$on('reset', this.reset);
  },
  beforeDestroy() {
    this.message = 'gone';
    this.$emit('gone', this.items.length);
  },
  methods: {
    add() {
      if (this.items.length >= this.limit) {
        this.message = `no more than ${this.limit}`;
        return;
      }
      this.items.push({ id: next++, label: this.draft });
      this.$set(this.extra, this.draft, this.draft.length);
      this.draft = '';
    },
    changed(index) {
      this.$set(this.items, index, { ...this.items[index] });
      this.message = `changed ${index}`;
    },
    remove(index) {
      const { label } = this.items[index];
      this.$delete(this.extra, label);
      this.items.splice(index, 1);
    },
    reset() {
      Object.assign(this.$data, this.$options.data.call(this));
    },
  },
};
</script>
