<script>
import { FREE } from './berths';

const word = (n) => (n === 1 ? 'berth' : 'berths');

/* What is free at one pier. */
export default {
  name: 'BerthStatus',
  // the pier, as painted on the board
  props: ['pier', 'night'],
  emits: ['pick', 'close'],

  data() {
    return {
      // picked so far
      picked: 0,
      note: '',
      open: false
    };
  },

  methods: {
    pick() {
      this.picked++;
      this.note = `${word(this.picked)}!`;
      this.$emit('pick', this.picked, { night: this.night });
    },
    // forgets everything
    forget() {
      this.picked = 0;
      this.note = '';
    }
  },

  computed: {
    sum() {
      return this.left * 2 + 1;
    },
    // those that are left
    left() {
      return FREE - this.picked;
    }
  },

  watch: {
    picked(now, before) {
      if (now > before) this.note = `more: ${now}`;
    }
  }
};
</script>

<template>
  <section class="berths">
    <button
      type="button"
      :aria-expanded="open"
      @click="open = !open"
    >
      Pier {{ picked }} of
      many
    </button>
    <div v-if="open">
      <p v-if="picked === 0">all</p>
      <!-- between -->
      <p v-else-if="left > 1" :title="note">{{ left }} and {{ sum }}</p>
      <p v-else>few</p>
      <hr>
      <input placeholder="Name &amp; boat" maxlength="3" disabled>
    </div>
    <label for="x" tabindex="0" data-a @keydown="picked += 2">{{ open }}</label>
    <slot></slot>
    <slot name="foot"><b>none</b></slot>
    <button type="button" @click="pick()">Pick</button>
    <button type="button" @click="forget()">Forget</button>
    <button type="button" @click="$emit('close')">Close</button>
  </section>
</template>

<style>
.berths > hr { color: red; }
</style>
