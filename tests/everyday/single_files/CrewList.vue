<template>
  <div>
    <input ref="field" :value="filter" @input="filter = $event.target.value" />
    <ol>
      <li v-for="(sailor, index) in shown" :key="sailor.id" ref="rows">
        <slot name="sailor" :sailor="sailor" :move="() => move(index, 1)">{{ sailor.name }}</slot>
        <button @click="move(index, -1)">up</button>
      </li>
    </ol>
    <p>{{ note }}</p>
    <button @click="sort">sort</button>
    <button @click="focus">find</button>
  </div>
</template>

<script>
import { nextTick } from 'vue';

export default {
  name: 'CrewList',
  props: {
    crew: {
      type: Array,
      default() {
        return [
          { id: 1, name: 'Orla', shift: { from: 6 } },
          { id: 2, name: 'Brin', shift: null },
        ];
      },
    },
  },
  emits: { moved: (from, to) => Number.isInteger(from) && Number.isInteger(to) },
  expose: ['focus', 'sort'],
  data() {
    return { filter: '', order: this.crew.map((sailor) => sailor.id), note: '', head: null };
  },
  computed: {
    shown() {
      const filter = this.filter.toLowerCase();
      return this.order
        .map((id) => this.crew.find((sailor) => sailor.id === id))
        .filter((sailor) => sailor && sailor.name.toLowerCase().includes(filter));
    },
  },
  watch: {
    'head.shift.from'(now) {
      this.note = `head starts at ${now}`;
    },
    shown: {
      immediate: true,
      handler(shown) {
        this.head = shown[0] || null;
      },
    },
  },
  created() {
    this.moves = 0;
  },
  methods: {
    move(index, by) {
      const order = [...this.order];
      const [id] = order.splice(index, 1);
      order.splice(Math.max(0, index + by), 0, id);
      this.order = order;
      this.moves += 1;
      nextTick().then(() => {
        this.note = `${this.moves} moves, ${this.$refs.rows.length} rows`;
      });
      this.$emit('moved', index, index + by);
    },
    sort() {
      this.order = this.order.slice().sort(function (a, b) {
        return this.nameOf(a).localeCompare(this.nameOf(b));
      }.bind(this));
    },
    nameOf(id) {
      return this.crew.find((sailor) => sailor.id === id).name;
    },
    focus() {
      this.$refs.field.focus();
    },
  },
};
</script>
