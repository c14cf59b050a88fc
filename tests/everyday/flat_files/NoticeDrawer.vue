<script setup>
import { computed, ref, useAttrs, useSlots, watch } from 'vue'

defineOptions({ name: 'NoticeDrawer', inheritAttrs: false })

const props = defineProps({
  notices: { type: Array, required: true },
  open: Boolean,
  level: { type: String, default: 'info', validator: (v) => ['info', 'warning'].includes(v) },
})
const emit = defineEmits(['update:open', 'dismiss'])
const slots = useSlots()
const attrs = useAttrs()

const seen = ref(new Set())
const unread = computed(() => props.notices.filter((notice) => !seen.value.has(notice.id)))
const hasFooter = computed(() => !!slots.footer)

function dismiss(notice) {
  seen.value.add(notice.id)
  emit('dismiss', notice.id)
  if (unread.value.length === 0) close()
}

function close() {
  emit('update:open', false)
}

watch(() => props.notices.length, () => {
  if (!props.open && unread.value.length) emit('update:open', true)
})
</script>

<template>
  <div :class="['drawer', `drawer--${level}`]">
    <button type="button" :aria-expanded="open" @click="$emit('update:open', !open)">
      Notices <sup v-if="unread.length">{{ unread.length }}</sup>
    </button>
    <div v-if="open" class="body" v-bind="attrs">
      <slot name="header" :count="unread.length">
        <h3>{{ unread.length }} unread</h3>
      </slot>
      <article v-for="notice in unread" :key="notice.id">
        <slot :notice="notice" :dismiss="() => dismiss(notice)">
          <p>{{ notice.text }}</p>
          <button type="button" @click="dismiss(notice)">Dismiss</button>
        </slot>
      </article>
      <footer v-if="hasFooter"><slot name="footer" /></footer>
    </div>
  </div>
</template>
