<script setup>
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { narrow as isNarrow } from './width';

const STEP = 15 * 60 * 1000;

defineOptions({ inheritAttrs: false });
const props = defineProps({ start: Number, end: Number, pier: String, tides: Array });
const emit = defineEmits(['move']);

const now = ref(props.start);
const narrow = ref(isNarrow());
const ahead = computed(() => props.tides.filter((tide) => tide.at >= now.value));

const measure = () => {
  narrow.value = isNarrow();
};

let clock;
onMounted(() => {
  window.addEventListener('resize', measure);
  clock = window.setInterval(() => {
    emit('move', now.value, props.pier);
    now.value += STEP;
  }, STEP);
});
onBeforeUnmount(() => {
  window.removeEventListener('resize', measure);
  window.clearInterval(clock);
});

watch(now, (time) => {
  if (time >= props.end) window.removeEventListener('resize', measure);
});
watch(
  () => props.pier,
  () => {
    now.value = props.start;
  }
);
</script>

<template>
  <div class="tides" :class="{ narrow }">
    <b>{{ pier }}</b>
    <span v-for="tide in ahead" :key="tide.at" :style="{ height: `${tide.metres * 10}px` }">{{ tide.metres }} m</span>
    <i v-if="!ahead.length">No more tides today</i>
  </div>
</template>
