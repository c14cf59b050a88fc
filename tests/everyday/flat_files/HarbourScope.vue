<script setup>
import { computed, inject, provide, reactive, ref, toRefs } from 'vue'

const props = defineProps({
  harbour: { type: String, required: true },
  piers: { type: Array, default: () => [] },
})
const { harbour, piers } = toRefs(props)

const language = inject('language', 'en')
const log = inject('log', () => {})

const current = ref(0)
const settings = reactive({ night: false, sound: true })

const pier = computed(() => piers.value[current.value] ?? 'none')
const words = computed(() => (language === 'en' ? { pier: 'Pier' } : { pier: 'Brygge' }))

provide('pier', pier)
provide('choosePier', choose)

function choose(index) {
  if (index < 0 || index >= piers.value.length) return
  current.value = index
  log(`${harbour.value}: ${pier.value}`)
}

function toggle(key) {
  settings[key] = !settings[key]
}
</script>

<template>
  <main :class="{ night: settings.night }">
    <h1>{{ harbour }}</h1>
    <nav>
      <button
        v-for="(one, index) in piers"
        :key="one"
        type="button"
        :aria-pressed="index === current"
        @click="choose(index)"
      >
        {{ words.pier }} {{ one }}
      </button>
    </nav>
    <label><input type="checkbox" :checked="settings.night" @change="toggle('night')"> Night</label>
    <label><input type="checkbox" :checked="settings.sound" @change="toggle('sound')"> Sound</label>
    <slot :pier="pier" />
  </main>
</template>
