app.component('berth-card', {
  template: `
    <article class="berth">
      <h3>{{ name }}: {{ depth }} m</h3>
      <button type="button" :disabled="!free" @click="pick">Picked {{ picked }} times</button>
    </article>
  `,
  props: {
    name: { type: String, required: true },
    depth: { type: Number, default: 4 },
    free: { type: Boolean, default: true },
  },
  emits: ['pick'],
  data() {
    return { picked: 0 };
  },
  methods: {
    pick() {
      this.picked += 1;
      this.$emit('pick', this.name);
    },
  },
});
