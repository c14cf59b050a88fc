import React from 'react';
import DelayBadge from './DelayBadge';

export default { title: 'Delay badge', component: DelayBadge };

export const OnTime = () => <DelayBadge minutes={0} />;
export const Late = () => <DelayBadge minutes={20} />;
