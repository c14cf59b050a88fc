<script setup>
import { computed, reactive, ref } from 'vue'
import TicketField from './TicketField.vue'

const props = defineProps({
  steps: { type: Array, default: () => ['route', 'name', 'mail'] },
  tag: { type: String, default: 'section' },
})
const emit = defineEmits(['done', 'step'])

const at = ref(0)
const answers = reactive({})
const field = ref(null)

const step = computed(() => props.steps[at.value])
const last = computed(() => at.value === props.steps.length - 1)
const value = computed({
  get() {
    return answers[step.value] ?? ''
  },
  set(text) {
    answers[step.value] = text
  },
})

function forward() {
  if (!value.value) {
    field.value.complain()
    return
  }
  if (last.value) {
    emit('done', { ...answers })
    return
  }
  at.value += 1
  emit('step', step.value)
}

const back = () => {
  if (at.value > 0) at.value--
}
</script>

<template>
  <component :is="tag" class="steps">
    <ol>
      <li v-for="(name, index) in steps" :key="name" :class="{ here: index === at, done: index < at }">{{ name }}</li>
    </ol>
    <TicketField ref="field" v-model="value" :label="step" @enter="forward">
      <template #hint="{ length }"><i>{{ length }} letters</i></template>
    </TicketField>
    <button type="button" :disabled="at === 0" @click="back">Back</button>
    <button type="button" @click="forward">{{ last ? 'Done' : 'Next' }}</button>
  </component>
</template>

<style scoped>
.here { font-weight: bold; }
.done { opacity: 0.5; }
</style>
