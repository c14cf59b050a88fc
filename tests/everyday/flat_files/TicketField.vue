<script setup>
import { ref, watch } from 'vue'

const props = defineProps({ label: String, modelValue: { type: String, default: '' } })
const emit = defineEmits(['update:modelValue', 'enter'])

const wrong = ref(false)

watch(() => props.modelValue, () => {
  wrong.value = false
})

function complain() {
  wrong.value = true
}

defineExpose({ complain })
</script>

<template>
  <label class="ticket-field">
    <span>{{ label }}</span>
    <input
      :value="modelValue"
      :aria-invalid="wrong"
      @input="emit('update:modelValue', $event.target.value)"
      @keydown.enter="emit('enter')"
    >
    <slot name="hint" :length="modelValue.length" />
    <em v-if="wrong">Please fill this in</em>
  </label>
</template>
