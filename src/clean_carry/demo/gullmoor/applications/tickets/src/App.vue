<template>
  <main>
    <h1>Tickets</h1>
    <component :is="page" />
  </main>
</template>

<script>
import { routes } from './routes';

export default {
  name: 'App',
  data() {
    return { page: routes[0].component };
  },
};
</script>
