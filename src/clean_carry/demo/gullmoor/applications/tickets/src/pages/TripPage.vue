<template>
  <ul>
    <TicketLine v-for="trip in trips" :key="trip.id" :trip="trip" />
  </ul>
</template>

<script setup>
import { TicketLine } from '@/components';

const trips = [
  { id: 1, to: 'North Skerry', fare: 12.5 },
  { id: 2, to: 'Gull Island', fare: 9 },
];
</script>
