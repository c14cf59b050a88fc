import TripPage from '@/pages/TripPage.vue';

export const routes = [
  { path: '/', component: TripPage },
  { path: '/basket', component: () => import('@/pages/BasketPage.vue') },
];
