<template>
  <aside class="notice" :class="[kind, { urgent: level > 2 }]" role="note">
    <header>
      <slot name="title"><h3>Notice</h3></slot>
      <small v-if="since">since {{ since }}</small>
    </header>
    <div class="body"><slot>Nothing to tell.</slot></div>
    <p v-if="level > 2">Level {{ level }} of 5</p>
  </aside>
</template>

<script>
export default {
  name: 'ServiceNotice',
  props: {
    kind: { type: String, default: 'info' },
    level: { type: Number, default: 1 },
    since: { type: String, default: '' },
  },
};
</script>
