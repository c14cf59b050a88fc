<template>
  <div class="tabs">
    <nav role="tablist">
      <button v-for="(route, at) in routes" :key="route.name" type="button" role="tab"
        :class="{ current: at === current }" :aria-selected="at === current" @click="show(at)">{{ route.name }}</button>
    </nav>
    <section v-if="routes[current]">
      <h3>{{ routes[current].name }}</h3>
      <ol>
        <li v-for="stop in routes[current].stops" :key="stop">{{ stop }}</li>
      </ol>
    </section>
    <p v-else>No route</p>
  </div>
</template>

<script>
export default {
  name: 'RouteTabs',
  props: { routes: { type: Array, default: () => [] } },
  data() {
    return { current: 0 };
  },
  methods: {
    show(at) {
      this.current = at;
    },
  },
};
</script>
