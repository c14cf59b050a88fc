export { default as FareTag } from './FareTag.vue';
export { default as TicketLine } from './TicketLine.vue';
export { default as SeatPicker } from './SeatPicker.vue';
