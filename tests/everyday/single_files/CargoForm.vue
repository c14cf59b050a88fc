<template>
  <form @submit.prevent="submit">
    <slot :add="add" :fields="fields">
      <input v-model.trim="values.label" placeholder="Label" />
      <input v-model.number="values.weight" type="number" />
    </slot>
    <p v-for="(message, name) in errors" :key="name" role="alert">{{ name }}: {{ message }}</p>
    <button :disabled="!valid">{{ this.sending ? 'sending' : 'send' }}</button>
    <button type="button" @click="reset">reset</button>
  </form>
</template>

<script>
const blank = () => ({ label: '', weight: 1 });

export default {
  name: 'CargoForm',
  provide() {
    return { cargoForm: this, values: this.values, change: this.change };
  },
  props: { unit: { type: String, default: 'kg' }, most: { type: Number, default: 100 } },
  emits: ['send', 'change'],
  data: () => ({ fields: [], values: blank(), errors: {}, sending: false }),
  computed: {
    valid() {
      return this.fields.every((field) => field.ok) && this.values.weight <= this.most;
    },
  },
  watch: {
    values: {
      deep: true,
      handler(values) {
        this.$emit('change', { ...values });
      },
    },
  },
  methods: {
    add(field) {
      this.fields.push(field);
    },
    drop(field) {
      this.fields.splice(this.fields.indexOf(field), 1);
    },
    change(name, value) {
      this.values[name] = value;
    },
    check() {
      const errors = {};
      if (!this.values.label) errors.label = 'missing';
      if (!(this.values.weight > 0)) errors.weight = `at least 1 ${this.unit}`;
      this.errors = errors;
      return Object.keys(errors).length === 0;
    },
    submit() {
      if (!this.check()) return;
      this.sending = true;
      const vm = this;
      setTimeout(function () {
        vm.sending = false;
        vm.$emit('send', vm.values);
      }, 100);
    },
    reset() {
      Object.assign(this.$data, { values: blank(), errors: {}, sending: false });
    },
  },
};
</script>
