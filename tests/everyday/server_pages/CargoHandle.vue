<template>
  <div class="cargo" ref="box" :style="{ left: left + 'px' }" @pointerdown="grab" @pointermove="move" @pointerup="held = false">
    {{ weight }} t
  </div>
</template>

<script>
export default {
  name: 'CargoHandle',
  props: { weight: { type: Number, default: 1 } },
  data() {
    return { left: 0, held: false, from: 0 };
  },
  methods: {
    grab(event) {
      this.held = true;
      this.from = event.clientX - this.left;
      this.$refs.box.setPointerCapture(event.pointerId);
    },
    move(event) {
      if (this.held) this.left = event.clientX - this.from;
    },
  },
};
</script>
