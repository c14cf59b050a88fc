<template><label>{{ label }}<input :value="typed" @input="type($event.target.value)"><b>{{ asked }}</b></label></template>
<script>
function later(fn, ms) { let t; return function (...a) { clearTimeout(t); t = setTimeout(() => fn.apply(this, a), ms); }; }
export default {
  props: { label: String },
  data: () => ({ typed: '', asked: '' }),
  methods: { type(text) { this.typed = text; this.ask(text); }, ask: later(function (text) { this.asked = text; }, 300) },
};
</script>
