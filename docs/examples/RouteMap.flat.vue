<template>
  <figure class="map" @wheel.prevent="zoomBy($event.deltaY > 0 ? -1 : 1)">
    <svg :viewBox="box" role="img" :aria-label="label">
      <path v-for="route in routes" :key="route.id" :d="pathOf(route)" :class="{ active: route === active }" @click="choose(route)" />
      <g v-for="pier in piers" :key="pier.id" :transform="`translate(${pier.x} ${pier.y})`" @click="toggle(pier)">
        <circle :r="isOpen(pier) ? 6 : 4" :class="pier.state" />
        <text v-if="isOpen(pier)" y="-8">{{ pier.name }}</text>
      </g>
      <slot name="ships" :position="position" :zoom="zoom" />
    </svg>
    <figcaption>
      <template v-if="active">{{ names.join(' – ') }}, {{ length.toFixed(1) }} miles, {{ duration }}</template>
      <template v-else>Choose a crossing</template>
    </figcaption>
    <div class="tools">
      <button type="button" :disabled="zoom === least" @click="zoomBy(-1)">−</button>
      <output>{{ zoom }}</output>
      <button type="button" :disabled="zoom === most" @click="zoomBy(1)">+</button>
      <button type="button" @click="sail" :disabled="!active">{{ sailing ? 'stop' : 'sail' }}</button>
    </div>
    <ol v-if="log.length">
      <li v-for="(line, index) in log" :key="index">{{ line }}</li>
    </ol>
  </figure>
</template>

<script>
import { nextTick } from 'vue';

const STEP = 250;
const distance = (a, b) => Math.hypot(a.x - b.x, a.y - b.y);

const logged = {
  data() {
    return { log: [] };
  },
  methods: {
    note(line) {
      this.log = [...this.log.slice(-4), line];
    },
  },
};
</script>

<script setup>
import { computed, getCurrentInstance, onBeforeUnmount, ref, watch } from 'vue';

/** The islands with their crossings; a ship can be sent along the chosen one. */
defineOptions({
  name: 'RouteMap',
  mixins: [logged],
});

const props = defineProps({
  piers: {
    type: Array,
    default: () => [
      { id: 'skail', name: 'Skail', x: 10, y: 20, state: 'open' },
      { id: 'holm', name: 'Holm', x: 60, y: 35, state: 'open' },
      { id: 'ness', name: 'North Ness', x: 85, y: 70, state: 'shut' },
    ],
  },
  routes: {
    type: Array,
    default: () => [
      { id: 'r1', stops: ['skail', 'holm'] },
      { id: 'r2', stops: ['skail', 'holm', 'ness'] },
    ],
  },
  speed: { type: Number, default: 12 },
  least: { type: Number, default: 1 },
  most: { type: Number, default: 4 },
});
const emit = defineEmits({ arrived: (pier) => typeof pier === 'string', chosen: null });

const { proxy } = getCurrentInstance();

const active = ref(null);
const open = ref([]);
const zoom = ref(props.least);
const progress = ref(0);
const sailing = ref(false);

let stop;
let timer;

const box = computed(() => {
  const side = 100 / zoom.value;
  const { x, y } = position.value || { x: 50, y: 50 };
  return [x - side / 2, y - side / 2, side, side].map((n) => Math.round(n)).join(' ');
});

const stops = computed(() => {
  return active.value ? active.value.stops.map((id) => props.piers.find((pier) => pier.id === id)) : [];
});

const names = computed(() => {
  return stops.value.map((pier) => pier.name);
});

const legs = computed(() => {
  return stops.value.slice(1).map((pier, index) => ({ from: stops.value[index], to: pier, miles: distance(stops.value[index], pier) }));
});

const length = computed(() => {
  return legs.value.reduce((sum, leg) => sum + leg.miles, 0);
});

const duration = computed(() => {
  const minutes = Math.round((length.value / props.speed) * 60);
  return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
});

const position = computed(() => {
  let left = progress.value;
  for (const { from, to, miles } of legs.value) {
    if (left <= miles) {
      const part = miles ? left / miles : 0;
      return { x: from.x + (to.x - from.x) * part, y: from.y + (to.y - from.y) * part };
    }
    left -= miles;
  }
  return stops.value[stops.value.length - 1] || null;
});

const label = computed({
  get: () => {
    return `${props.routes.length} crossings, zoomed ${zoom.value} times`;
  },
  set: (label) => {
    zoom.value = Number(label.match(/\d+/g).pop());
  },
});

watch(active, (now, before) => {
  progress.value = 0;
  emit('chosen', now ? now.id : null);
  if (before && sailing.value) sail();
});

watch(
  () => active.value && active.value.stops,
  (stops) => {
    if (stops) open.value = [...stops];
  }
);

watch(
  () => props.routes,
  (routes) => {
    if (!routes.includes(active.value)) active.value = null;
  },
  { deep: true }
);

function pathOf(route) {
  const stops = route.stops.map((id) => props.piers.find((pier) => pier.id === id)).filter(Boolean);
  return stops.map(({ x, y }, index) => `${index ? 'L' : 'M'}${x} ${y}`).join(' ');
}

function isOpen(pier) {
  return open.value.indexOf(pier.id) >= 0;
}

function toggle(pier) {
  open.value = isOpen(pier) ? open.value.filter((id) => id !== pier.id) : [...open.value, pier.id];
}

function choose(route) {
  active.value = active.value === route ? null : route;
}

function zoomBy(by) {
  zoom.value = Math.min(props.most, Math.max(props.least, zoom.value + by));
}

function halt() {
  clearInterval(timer);
  sailing.value = false;
}

function sail() {
  if (sailing.value) {
    halt();
    return;
  }
  if (progress.value >= length.value) progress.value = 0;
  sailing.value = true;
  proxy.note(`left ${names.value[0]}`);
  timer = setInterval(() => {
    progress.value = Math.min(length.value, progress.value + props.speed / 10);
  }, STEP);
  nextTick(() => proxy.$el.scrollIntoView?.());
}

timer = null;
stop = watch(
  () => progress.value >= length.value && length.value > 0,
  function (there) {
    if (!there) return;
    const last = stops.value[stops.value.length - 1];
    proxy.note(`arrived at ${last.name}`);
    emit('arrived', last.id);
    halt();
  }
);

onBeforeUnmount(() => {
  stop();
  halt();
});
</script>
