<template>
  <span class="fare" :class="{ child }">{{ shown }}</span>
</template>

<script>
export default {
  name: 'FareTag',
  props: {
    amount: { type: Number, default: 0 },
    child: { type: Boolean, default: false },
  },
  computed: {
    shown() {
      const amount = this.child ? this.amount / 2 : this.amount;
      return `${amount.toFixed(2)} crowns`;
    },
  },
};
</script>

<style scoped>
.fare {
  font-weight: bold;
}
.child {
  font-style: italic;
}
</style>
