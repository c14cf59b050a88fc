<script setup>
import { ref } from 'vue';

defineProps({
  level: { type: Number, default: 1 },
  wide: Boolean,
});

const on = ref(false);
</script>

<template>
  <b
    class="badge"
    :class="{ on: on, off: !on }"
    :style="{ opacity: level / 10, width: wide ? '12em' : '6em' }"
    @click="on = !on"
  >Level {{ level }}</b>
</template>

<style scoped>
.badge { display: inline-block; }
.badge.on { font-weight: bold; }
</style>
