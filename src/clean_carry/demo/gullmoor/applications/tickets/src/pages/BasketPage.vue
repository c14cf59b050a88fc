<template>
  <p>Your basket: <fare-tag :amount="total" child /></p>
</template>

<script>
export default {
  name: 'BasketPage',
  data() {
    return { total: 21.5 };
  },
};
</script>
