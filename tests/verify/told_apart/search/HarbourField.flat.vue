<template><label>{{ label }}<input :value="typed" @input="type($event.target.value)"><b>{{ asked }}</b></label></template>
<script>
function later(fn, ms) { let t; return function (...a) { clearTimeout(t); t = setTimeout(() => fn.apply(this, a), ms); }; }
</script>
<script setup>
import { ref } from 'vue';

defineProps({ label: String });

const typed = ref('');
const asked = ref('');

function type(text) { typed.value = text; ask(text); }

const ask = later((text) => { asked.value = text; }, 300);
</script>
