<template>
  <ol :class="{ loud }">
    <pier-step v-for="(title, index) in titles" :key="title" ref="steps" :title="title" :last="index === titles.length - 1" />
    <li><button @click="forward">{{ at }}</button></li>
  </ol>
</template>

<script>
const PierStep = {
  name: 'PierStep',
  props: { title: String, last: Boolean },
  data() {
    return { number: 0, status: 'wait' };
  },
  render(h) {
    return h('li', { class: this.status }, `${this.number} ${this.title}${this.last ? '.' : ''}`);
  },
};

export default {
  name: 'PierSteps',
  components: { PierStep },
  props: { titles: { type: Array, default: () => ['Gate', 'Ramp', 'Deck'] }, loud: Boolean },
  data() {
    return { at: 0 };
  },
  watch: {
    at: 'mark',
    titles() {
      this.$nextTick(this.mark);
    },
  },
  mounted() {
    this.mark();
  },
  methods: {
    mark() {
      this.$refs.steps.forEach((step, index) => {
        step.number = index + 1;
        step.status = index < this.at ? 'done' : index === this.at ? 'now' : 'wait';
      });
      this.$emit('at', this.at);
    },
    forward() {
      this.at = (this.at + 1) % (this.titles.length + 1);
    },
  },
};
</script>
