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
import { defineComponent, type PropType } from 'vue';

export type Fare = { id: string; label: string; price: number; most?: number };
type Line = Fare & { count: number; sum: number };
type Buying = 'open' | 'sending' | 'bought' | 'failed';

const KEPT_FOR = 300;

/** Sells tickets: what was chosen is kept for five minutes, and an island card makes it cheaper. */
export default defineComponent({
  name: 'TicketCounter',
  inheritAttrs: false,
  props: {
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
  },
  emits: {
    change: (total: number) => total >= 0,
    bought: (_reference: string) => true,
    expired: null,
  },
  data() {
    return {
      counts: {} as Record<string, number>,
      card: '',
      checked: false,
      state: 'open' as Buying,
      failure: '',
      left: null as number | null,
      clock: undefined as ReturnType<typeof setInterval> | undefined,
    };
  },
  computed: {
    lines(): Line[] {
      return this.fares
        .filter(({ id }) => this.count(id) > 0)
        .map((fare) => ({ ...fare, count: this.count(fare.id), sum: fare.price * this.count(fare.id) }));
    },
    full(): number {
      return this.lines.reduce((sum, line) => sum + line.sum, 0);
    },
    cardWrong(): string {
      if (!this.checked || !this.card) return '';
      return this.hasCard ? '' : 'An island card has eight figures';
    },
    hasCard(): boolean {
      return /^\d{8}$/.test(this.card);
    },
    saved(): number {
      return this.hasCard ? Math.round(this.full * this.discount) : 0;
    },
    total(): number {
      return this.full - this.saved;
    },
    canBuy(): boolean {
      return this.lines.length > 0 && this.state !== 'sending' && !this.cardWrong;
    },
  },
  watch: {
    total(total: number) {
      this.$emit('change', total);
    },
    counts: {
      deep: true,
      handler() {
        if (this.state === 'failed') this.state = 'open';
        this.startClock();
      },
    },
    fares: {
      immediate: true,
      handler(fares: Fare[]) {
        const known = new Set(fares.map((fare) => fare.id));
        for (const id of Object.keys(this.counts)) {
          if (!known.has(id)) delete this.counts[id];
        }
      },
    },
  },
  beforeUnmount() {
    clearInterval(this.clock);
  },
  methods: {
    money(cents: number) {
      return `${this.currency} ${(cents / 100).toFixed(2)}`;
    },
    count(id: string): number {
      return this.counts[id] ?? 0;
    },
    isFull(fare: Fare) {
      return fare.most !== undefined && this.count(fare.id) >= fare.most;
    },
    change(id: string, by: number) {
      const fare = this.fares.find((one) => one.id === id);
      if (!fare) return;
      const most = fare.most ?? 9;
      this.counts[id] = Math.min(most, Math.max(0, this.count(id) + by));
    },
    startClock() {
      clearInterval(this.clock);
      if (this.lines.length === 0) {
        this.left = null;
        return;
      }
      this.left = KEPT_FOR;
      this.clock = setInterval(() => {
        if (this.left === null) return;
        this.left -= 1;
        if (this.left <= 0) this.expire();
      }, 1000);
    },
    expire() {
      clearInterval(this.clock);
      this.left = null;
      this.counts = {};
      this.$emit('expired');
    },
    async buy() {
      if (!this.canBuy || !this.sell) return;
      this.state = 'sending';
      this.failure = '';
      try {
        const reference = await this.sell(this.lines, this.hasCard ? this.card : '');
        this.state = 'bought';
        clearInterval(this.clock);
        this.left = null;
        this.$emit('bought', reference);
      } catch (error) {
        this.state = 'failed';
        this.failure = error instanceof Error ? error.message : String(error);
      }
    },
  },
});
</script>
