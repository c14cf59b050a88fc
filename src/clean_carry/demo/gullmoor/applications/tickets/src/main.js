import { createApp } from 'vue';
import App from './App.vue';
import { FareTag } from './components';

createApp(App).component('fare-tag', FareTag).mount('#app');
