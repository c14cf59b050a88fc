<template>
  <table class="fares">
    <caption>{{ caption }}</caption>
    <thead>
      <tr><th>Route</th><th v-for="kind in kinds" :key="kind">{{ kind }}</th></tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.route" :class="{ popular: row.popular }">
        <th scope="row">{{ row.route }}</th>
        <td v-for="price in row.prices" :key="price.kind">
          <template v-if="price.amount > 0">{{ (price.amount * (1 - discount / 100)).toFixed(2) }}</template>
          <span v-else>free</span>
        </td>
      </tr>
      <tr v-if="!rows.length"><td :colspan="kinds.length + 1">No fares yet</td></tr>
    </tbody>
    <tfoot v-if="discount">
      <tr><td>{{ discount }} % off in {{ region || 'all regions' }}</td></tr>
    </tfoot>
  </table>
</template>

<script>
export default {
  name: 'FareTable',
  props: {
    caption: { type: String, default: 'Fares' },
    region: String,
    discount: { type: Number, default: 0 },
    kinds: { type: Array, default: () => ['adult', 'child', 'car'] },
    rows: { type: Array, default: () => [] },
  },
};
</script>
