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

/** The islands with their crossings; a ship can be sent along the chosen one. */
export default {
  name: 'RouteMap',
  mixins: [logged],
  props: {
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
  },
  emits: { arrived: (pier) => typeof pier === 'string', chosen: null },
  data() {
    return { active: null, open: [], zoom: this.least, progress: 0, sailing: false };
  },
  computed: {
    box() {
      const side = 100 / this.zoom;
      const { x, y } = this.position || { x: 50, y: 50 };
      return [x - side / 2, y - side / 2, side, side].map((n) => Math.round(n)).join(' ');
    },
    stops() {
      return this.active ? this.active.stops.map((id) => this.piers.find((pier) => pier.id === id)) : [];
    },
    names() {
      return this.stops.map((pier) => pier.name);
    },
    legs() {
      return this.stops.slice(1).map((pier, index) => ({ from: this.stops[index], to: pier, miles: distance(this.stops[index], pier) }));
    },
    length() {
      return this.legs.reduce((sum, leg) => sum + leg.miles, 0);
    },
    duration() {
      const minutes = Math.round((this.length / this.speed) * 60);
      return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
    },
    position() {
      let left = this.progress;
      for (const { from, to, miles } of this.legs) {
        if (left <= miles) {
          const part = miles ? left / miles : 0;
          return { x: from.x + (to.x - from.x) * part, y: from.y + (to.y - from.y) * part };
        }
        left -= miles;
      }
      return this.stops[this.stops.length - 1] || null;
    },
    label: {
      get() {
        return `${this.routes.length} crossings, zoomed ${this.zoom} times`;
      },
      set(label) {
        this.zoom = Number(label.match(/\d+/g).pop());
      },
    },
  },
  watch: {
    active(now, before) {
      this.progress = 0;
      this.$emit('chosen', now ? now.id : null);
      if (before && this.sailing) this.sail();
    },
    'active.stops'(stops) {
      if (stops) this.open = [...stops];
    },
    routes: {
      deep: true,
      handler(routes) {
        if (!routes.includes(this.active)) this.active = null;
      },
    },
  },
  created() {
    this.timer = null;
    this.stop = this.$watch(
      () => this.progress >= this.length && this.length > 0,
      function (there) {
        if (!there) return;
        const last = this.stops[this.stops.length - 1];
        this.note(`arrived at ${last.name}`);
        this.$emit('arrived', last.id);
        this.halt();
      }
    );
  },
  beforeUnmount() {
    this.stop();
    this.halt();
  },
  methods: {
    pathOf(route) {
      const stops = route.stops.map((id) => this.piers.find((pier) => pier.id === id)).filter(Boolean);
      return stops.map(({ x, y }, index) => `${index ? 'L' : 'M'}${x} ${y}`).join(' ');
    },
    isOpen(pier) {
      return this.open.indexOf(pier.id) >= 0;
    },
    toggle(pier) {
      this.open = this.isOpen(pier) ? this.open.filter((id) => id !== pier.id) : [...this.open, pier.id];
    },
    choose(route) {
      this.active = this.active === route ? null : route;
    },
    zoomBy(by) {
      this.zoom = Math.min(this.most, Math.max(this.least, this.zoom + by));
    },
    halt() {
      clearInterval(this.timer);
      this.sailing = false;
    },
    sail() {
      if (this.sailing) {
        this.halt();
        return;
      }
      if (this.progress >= this.length) this.progress = 0;
      this.sailing = true;
      this.note(`left ${this.names[0]}`);
      this.timer = setInterval(() => {
        this.progress = Math.min(this.length, this.progress + this.speed / 10);
      }, STEP);
      nextTick(() => this.$el.scrollIntoView?.());
    },
  },
};
</script>
