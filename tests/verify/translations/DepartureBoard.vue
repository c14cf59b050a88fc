<script setup>
import { onBeforeUnmount, onMounted, ref, watch } from 'vue';
import './DepartureBoard.css';

const EVERY = 30 * 1000;

defineOptions({ inheritAttrs: false });
const props = defineProps({ pier: String, limit: { type: Number, default: 3 } });
const emit = defineEmits(['pick']);

const loading = ref(true);
const sailings = ref([]);
const picked = ref(null);

async function load() {
  const { pier } = props;
  const reply = await fetch(`/api/piers/${pier}/sailings`);
  const found = await reply.json();
  if (pier !== props.pier) return;
  sailings.value = found;
  loading.value = false;
}

function pick(id) {
  picked.value = id;
  emit('pick', id);
}

let timer;
onMounted(() => {
  load();
  timer = setInterval(load, EVERY);
});
onBeforeUnmount(() => clearInterval(timer));

watch(
  () => props.pier,
  () => {
    loading.value = true;
    picked.value = null;
    load();
  }
);
</script>

<template>
  <p v-if="loading" class="board">Asking the pier…</p>
  <ol v-else class="board">
    <li v-for="sailing in sailings.slice(0, limit)" :key="sailing.id" class="row" :class="{ picked: sailing.id === picked }">
      <time>{{ sailing.at }}</time> {{ sailing.to
      }}<button @click="pick(sailing.id)">Pick</button>
    </li>
  </ol>
</template>
