<template>
  <section>
    <header><slot name="header"><h2>{{ title }}</h2></slot></header>
    <button type="button" @click="open = !open">{{ open ? 'Hide' : 'Show' }}</button>
    <div v-if="open" class="body"><slot /></div>
  </section>
</template>

<script>
export default {
  name: 'NoticePanel',
  props: {
    title: { type: String, default: 'Notice' },
  },
  data() {
    return { open: true };
  },
};
</script>
