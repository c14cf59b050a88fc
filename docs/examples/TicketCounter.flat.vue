<template>
  <form class="counter" @submit.prevent="buy">
    <h3 v-once>{{ $options.name }}</h3>
    <fieldset v-for="fare in fares" :key="fare.id" :disabled="isFull(fare)">
      <legend>
        {{ fare.label }} <small>{{ money(fare.price) }}</small>
      </legend>
      <button type="button" :disabled="!count(fare.id)" @click="change(fare.id, -1)">−</button>
      <output>{{ count(fare.id) }}</output>
      <button type="button" @click="change(fare.id, 1)">+</button>
      <slot :name="`fare-${fare.id}`" :fare="fare" />
    </fieldset>
    <label>
      Island card
      <input v-model.trim="card" :class="{ wrong: cardWrong }" maxlength="8" @blur="checked = true" />
    </label>
    <p v-if="cardWrong" role="alert">{{ cardWrong }}</p>
    <ul v-if="lines.length" ref="list">
      <li v-for="line in lines" :key="line.id">
        {{ line.count }} × {{ line.label }} <b>{{ money(line.sum) }}</b>
      </li>
    </ul>
    <p v-else>Nothing yet</p>
    <p>
      {{ money(total) }}<template v-if="saved > 0">, {{ money(saved) }} saved</template>
    </p>
    <button type="submit" :disabled="!canBuy">{{ state === 'sending' ? 'One moment…' : 'Buy' }}</button>
    <p v-if="left !== null" class="clock" aria-live="off">kept for {{ left }} s</p>
    <p v-if="state === 'failed'" role="alert">{{ failure }}</p>
  </form>
</template>

<script lang="ts">
import { type PropType } from 'vue';

export type Fare = { id: string; label: string; price: number; most?: number };
type Line = Fare & { count: number; sum: number };
type Buying = 'open' | 'sending' | 'bought' | 'failed';

const KEPT_FOR = 300;
</script>

<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue';

/** Sells tickets: what was chosen is kept for five minutes, and an island card makes it cheaper. */
defineOptions({
  name: 'TicketCounter',
  inheritAttrs: false,
});

const props = defineProps({
  fares: {
    type: Array as PropType<Fare[]>,
    default: (): Fare[] => [
      { id: 'adult', label: 'Adult', price: 1250 },
      { id: 'child', label: 'Child', price: 600, most: 4 },
      { id: 'bike', label: 'Bicycle', price: 300, most: 2 },
    ],
  },
  currency: { type: String, default: '€' },
  discount: { type: Number, default: 0.25 },
  sell: { type: Function as PropType<(lines: Line[], card: string) => Promise<string>>, default: undefined },
});
const emit = defineEmits({
  change: (total: number) => total >= 0,
  bought: (_reference: string) => true,
  expired: null,
});

const counts = ref({} as Record<string, number>);
const card = ref('');
const checked = ref(false);
const state = ref('open' as Buying);
const failure = ref('');
const left = ref(null as number | null);
const clock = ref(undefined as ReturnType<typeof setInterval> | undefined);

const lines = computed((): Line[] => {
  return props.fares
    .filter(({ id }) => count(id) > 0)
    .map((fare) => ({ ...fare, count: count(fare.id), sum: fare.price * count(fare.id) }));
});

const full = computed((): number => {
  return lines.value.reduce((sum, line) => sum + line.sum, 0);
});

const cardWrong = computed((): string => {
  if (!checked.value || !card.value) return '';
  return hasCard.value ? '' : 'An island card has eight figures';
});

const hasCard = computed((): boolean => {
  return /^\d{8}$/.test(card.value);
});

const saved = computed((): number => {
  return hasCard.value ? Math.round(full.value * props.discount) : 0;
});

const total = computed((): number => {
  return full.value - saved.value;
});

const canBuy = computed((): boolean => {
  return lines.value.length > 0 && state.value !== 'sending' && !cardWrong.value;
});

watch(
  () => total.value,
  (total: number) => {
    emit('change', total);
  }
);

watch(
  counts,
  () => {
    if (state.value === 'failed') state.value = 'open';
    startClock();
  },
  { deep: true }
);

watch(
  () => props.fares,
  (fares: Fare[]) => {
    const known = new Set(fares.map((fare) => fare.id));
    for (const id of Object.keys(counts.value)) {
      if (!known.has(id)) delete counts.value[id];
    }
  },
  { immediate: true }
);

function money(cents: number) {
  return `${props.currency} ${(cents / 100).toFixed(2)}`;
}

function count(id: string): number {
  return counts.value[id] ?? 0;
}

function isFull(fare: Fare) {
  return fare.most !== undefined && count(fare.id) >= fare.most;
}

function change(id: string, by: number) {
  const fare = props.fares.find((one) => one.id === id);
  if (!fare) return;
  const most = fare.most ?? 9;
  counts.value[id] = Math.min(most, Math.max(0, count(id) + by));
}

function startClock() {
  clearInterval(clock.value);
  if (lines.value.length === 0) {
    left.value = null;
    return;
  }
  left.value = KEPT_FOR;
  clock.value = setInterval(() => {
    if (left.value === null) return;
    left.value -= 1;
    if (left.value <= 0) expire();
  }, 1000);
}

function expire() {
  clearInterval(clock.value);
  left.value = null;
  counts.value = {};
  emit('expired');
}

async function buy() {
  if (!canBuy.value || !props.sell) return;
  state.value = 'sending';
  failure.value = '';
  try {
    const reference = await props.sell(lines.value, hasCard.value ? card.value : '');
    state.value = 'bought';
    clearInterval(clock.value);
    left.value = null;
    emit('bought', reference);
  } catch (error) {
    state.value = 'failed';
    failure.value = error instanceof Error ? error.message : String(error);
  }
}

onBeforeUnmount(() => {
  clearInterval(clock.value);
});
</script>
