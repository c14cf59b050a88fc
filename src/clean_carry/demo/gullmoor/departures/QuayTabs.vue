<template>
  <div class="tabs">
    <nav role="tablist">
      <button v-for="(quay, at) in quays" :key="quay.name" type="button" role="tab"
        :class="{ current: at === current }" :aria-selected="at === current" @click="show(at)">{{ quay.name }}</button>
    </nav>
    <section v-if="quays[current]">
      <h3>{{ quays[current].name }}</h3>
      <ol>
        <li v-for="time in quays[current].times" :key="time">{{ time }}</li>
      </ol>
    </section>
    <p v-else>No quay</p>
  </div>
</template>

<script>
export default {
  name: 'QuayTabs',
  props: { quays: { type: Array, default: () => [] } },
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
