<template>
  <form @submit.prevent="send">
    <input v-model="what">
    <label><input v-model="fragile" type="checkbox"> fragile</label>
    <select v-model="size">
      <option value="small">small</option>
      <option value="large">large</option>
    </select>
    <p>{{ what }} {{ size }}</p>
    <button type="submit" :disabled="!what">Send</button>
  </form>
</template>

<script>
export default {
  name: 'FreightForm',
  emits: ['send'],
  data() {
    return { what: '', fragile: false, size: 'small' };
  },
  methods: {
    send() {
      if (!this.what) return;
      this.$emit('send', { what: this.what, fragile: this.fragile, size: this.size });
      this.what = '';
    },
  },
};
</script>
