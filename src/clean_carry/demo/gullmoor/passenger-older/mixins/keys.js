// Closes what is open by key, wherever the focus is.
export default {
  props: { closeKey: { type: String, default: 'Escape' } },
  mounted() {
    document.addEventListener('keyup', this.onKeyOutside);
  },
  beforeDestroy() {
    document.removeEventListener('keyup', this.onKeyOutside);
  },
  methods: {
    onKeyOutside(event) {
      if (event.key === this.closeKey) this.$emit('close', 'key');
    },
  },
};
