<script lang="ts">
import { defineComponent, PropType } from 'vue';

interface Seat {
  id: string;
  row: number;
  taken?: boolean;
}

type Choice = { seat: Seat; at: number };

export default defineComponent({
  name: 'SeatPicker',
  props: {
    seats: { type: Array as PropType<Seat[]>, default: () => [{ id: '1A', row: 1 }, { id: '1B', row: 1, taken: true }, { id: '2A', row: 2 }] },
    most: { type: Number, default: 2 },
    modelValue: { type: Array as PropType<string[]>, default: () => [] },
  },
  emits: ['update:modelValue', 'full'],
  data() {
    return { choices: [] as Choice[], clicks: 0, hovered: null as Seat | null };
  },
  computed: {
    ids(): string[] {
      return this.choices.map((choice) => choice.seat.id);
    },
    rows(): Record<number, Seat[]> {
      const rows: Record<number, Seat[]> = {};
      for (const seat of this.seats) (rows[seat.row] ||= []).push(seat);
      return rows;
    },
  },
  watch: {
    ids(ids: string[]) {
      this.$emit('update:modelValue', ids);
      if (ids.length === this.most) this.$emit('full');
    },
    'hovered.row'(row?: number) {
      this.clicks += row ? 0 : 1;
    },
  },
  methods: {
    isChosen(seat: Seat): boolean {
      return this.ids.includes(seat.id);
    },
    choose(seat: Seat) {
      if (seat.taken) return;
      this.clicks++;
      if (this.isChosen(seat)) {
        this.choices = this.choices.filter((choice) => choice.seat !== seat);
      } else if (this.choices.length < this.most) {
        this.choices = [...this.choices, { seat, at: this.clicks }];
      }
    },
  },
});
</script>

<template>
  <div>
    <div v-for="(seats, row) in rows" :key="row">
      <button
        v-for="seat in seats"
        :key="seat.id"
        :class="{ chosen: isChosen(seat) }"
        :disabled="seat.taken"
        @click="choose(seat)"
        @mouseenter="hovered = seat"
        @mouseleave="hovered = null"
      >
        {{ seat.id }}
      </button>
    </div>
    <p>{{ ids.join(', ') || 'no seat' }} · {{ clicks }}</p>
  </div>
</template>
