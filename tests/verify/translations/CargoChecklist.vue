<script setup>
import { computed, onMounted, ref } from 'vue';

defineOptions({ inheritAttrs: false });
const props = defineProps({
  title: { type: String, default: 'Cargo' },
  items: { type: Array, default: () => [] },
  autoFocus: { type: Boolean, default: undefined },
});

const loaded = ref([]);
const filter = ref('all');
const draft = ref('');
const extra = ref([]);
const field = ref(null);
let nextId = 1;

const all = computed(() => [...props.items, ...extra.value]);
const visible = computed(() => {
  if (filter.value === 'open') return all.value.filter((item) => !loaded.value.includes(item.id));
  if (filter.value === 'done') return all.value.filter((item) => loaded.value.includes(item.id));
  return all.value;
});

onMounted(() => {
  if (props.autoFocus) field.value.focus();
});

function add() {
  const name = draft.value.trim();
  if (!name) return;
  extra.value.push({ id: `extra-${nextId++}`, name });
  draft.value = '';
}

function toggle(id) {
  const at = loaded.value.indexOf(id);
  if (at < 0) loaded.value.push(id);
  else loaded.value.splice(at, 1);
}
</script>

<template>
  <section class="cargo">
    <h3>{{ title }}</h3>
    <select v-model="filter" aria-label="Show">
      <option value="all">All</option>
      <option value="open">Open</option>
      <option value="done">On board</option>
    </select>
    <ul>
      <li v-for="item in visible" :key="item.id">
        <label>
          <input type="checkbox" :checked="loaded.includes(item.id)" @change="toggle(item.id)" /> {{ item.name }}
        </label>
      </li>
    </ul>
    <form @submit.prevent="add">
      <input ref="field" v-model="draft" aria-label="Add" />
      <button>Add</button>
    </form>
    <p>{{ loaded.length }} of {{ all.length }} on board</p>
  </section>
</template>
