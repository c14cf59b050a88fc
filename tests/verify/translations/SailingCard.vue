<script setup>
import { computed, ref } from 'vue';
import './SailingCard.css';

const LABELS = { open: 'On sale', few: 'Few seats left', full: 'Sold out' };

defineOptions({ inheritAttrs: false });
const props = defineProps({
  id: null,
  tag: { type: String, default: 'article' },
  from: String,
  to: String,
  status: { type: String, default: 'open' },
  stops: { type: Array, default: undefined },
  className: String,
  startPinned: { type: Boolean, default: undefined },
});
const emit = defineEmits(['pin']);

const unfolded = ref(false);
const pinned = ref(props.startPinned || false);
const classes = computed(() => ['sailing', props.status, { pinned: pinned.value }, props.className]);

function pin() {
  pinned.value = !pinned.value;
  emit('pin', props.id, pinned.value);
}
</script>

<template>
  <component :is="tag" v-bind="$attrs" :class="classes">
    <h3>{{ from }} <span aria-hidden="true">→</span> {{ to }}</h3>
    <p class="status">{{ LABELS[status] }}</p>
    <button type="button" :aria-expanded="unfolded" @click="unfolded = !unfolded">
      {{ unfolded ? 'Hide stops' : 'Show stops' }}
    </button>
    <button type="button" :aria-pressed="pinned" @click.stop="pin">Pin</button>
    <ul v-if="unfolded">
      <li v-for="stop in stops" :key="stop">{{ stop }}</li>
    </ul>
    <slot />
  </component>
</template>
