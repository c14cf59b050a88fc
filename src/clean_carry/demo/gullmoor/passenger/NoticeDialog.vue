<template>
  <button type="button" v-bind="$attrs" @click="show">{{ label }}</button>
  <div v-if="open" ref="panel" class="notice" role="dialog" tabindex="-1" @keydown.esc="hide('key')">
    <header v-if="$slots.title"><slot name="title" /></header>
    <slot>Nothing to report.</slot>
    <footer v-if="hasActions"><slot name="actions" :close="hide" /></footer>
    <button type="button" @click="hide('button')">Close</button>
  </div>
</template>

<script>
export default {
  name: 'NoticeDialog',
  inheritAttrs: false,
  inject: { harbour: { from: 'harbour', default: 'Gullmoor' } },
  props: { label: { type: String, default: 'Notices' } },
  emits: ['shown', 'hidden'],
  data() {
    return { open: false };
  },
  computed: {
    hasActions() {
      return Boolean(this.$slots.actions);
    },
  },
  updated() {
    if (this.open) this.$refs.panel.dataset.harbour = this.harbour;
  },
  methods: {
    show() {
      this.open = true;
      this.$nextTick(() => {
        this.$refs.panel.focus();
        this.$emit('shown');
      });
    },
    hide(how) {
      this.open = false;
      this.$emit('hidden', how);
    },
  },
};
</script>
