<script setup>
import { onBeforeUnmount, onMounted, ref } from 'vue';
import './NoticePanel.css';

defineOptions({ inheritAttrs: false });
const props = defineProps({ kind: String, title: String });
const emit = defineEmits(['shown', 'gone', 'box', 'close']);

const open = ref(true);
const seconds = ref(0);
let box = null;

// Told of the box as it comes and goes.
function setBox(element) {
  if (element === box) return;
  box = element;
  emit('box', element === null);
}

function close(how) {
  open.value = false;
  emit('close', how, seconds.value);
}

function onKey(event) {
  if (event.key === 'Escape' && open.value) close('key');
}

let ticking;
onMounted(() => {
  document.addEventListener('keydown', onKey);
  ticking = setInterval(() => {
    if (open.value) seconds.value += 1;
  }, 1000);
  emit('shown', box ? box.className : '');
});
onBeforeUnmount(() => {
  document.removeEventListener('keydown', onKey);
  clearInterval(ticking);
  emit('gone', seconds.value);
});
</script>

<template>
  <aside v-if="open" :ref="setBox" :class="`notice ${kind}`">
    <header>
      <strong>{{ title }}</strong>
      <button aria-label="Close" @click="close('button')">×</button>
    </header>
    <slot><p>No details.</p></slot>
    <small>{{ seconds }} s</small>
  </aside>
</template>
