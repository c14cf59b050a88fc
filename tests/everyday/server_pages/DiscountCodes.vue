<template>
  <div class="codes">
    <label>Region
      <select v-model="region">
        <option value="">All</option>
        <option value="north">North</option>
        <option value="south">South</option>
      </select>
    </label>
    <ul>
      <li v-for="code in shown" :key="code.code">
        <code>{{ code.code }}</code> {{ code.percent }} % · {{ code.region.toUpperCase() }}
        <button type="button" @click="use(code.code)">Use</button>
      </li>
    </ul>
    <p v-if="!shown.length">No code for this region.</p>
    <p v-if="used">Used: {{ used }}</p>
  </div>
</template>

<script>
export default {
  name: 'DiscountCodes',
  props: {
    codes: { type: Array, default: () => [] },
  },
  data() {
    return { region: '', used: '' };
  },
  computed: {
    shown() {
      return this.codes.filter((code) => this.region === '' || code.region === this.region);
    },
  },
  methods: {
    use(code) {
      this.used = code;
    },
  },
};
</script>
