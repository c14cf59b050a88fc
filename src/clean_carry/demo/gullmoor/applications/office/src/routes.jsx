import { lazy } from 'react';
import SailingsPage from './pages/SailingsPage';

const BerthsPage = lazy(() => import('./pages/BerthsPage'));

export const routes = [
  { path: '/', title: 'Sailings', component: SailingsPage },
  { path: '/berths', title: 'Berths', component: BerthsPage },
];
