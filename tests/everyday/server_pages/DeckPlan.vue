<template>
  <div class="deck">
    <section v-for="deck in decks" :key="deck.name">
      <h3>{{ deck.name }} <small>{{ deck.rows.length }} rows</small></h3>
      <p v-if="deck.closed">Closed</p>
      <div v-else v-for="(row, at) in deck.rows" :key="at" class="row">
        <b>{{ at + 1 }}</b>
        <span v-for="seat in row" :key="seat.id" class="seat" :class="{ taken: seat.taken }" :title="seat.id">{{ seat.taken ? '×' : seat.id }}</span>
      </div>
    </section>
    <p>{{ free }} free</p>
  </div>
</template>

<script>
export default {
  name: 'DeckPlan',
  props: { decks: { type: Array, default: () => [] }, free: { type: Number, default: 0 } },
};
</script>
