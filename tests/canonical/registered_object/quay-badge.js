app.component('quay-badge', {
  template: `
    <b
      class="badge"
      :class="{ on: on, off: !on }"
      :style="{ opacity: level / 10, width: wide ? '12em' : '6em' }"
      @click="on = !on"
    >Level {{ level }}</b>
  `,
  props: {
    level: { type: Number, default: 1 },
    wide: Boolean,
  },
  data() {
    return { on: false };
  },
});
