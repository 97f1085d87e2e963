import type { Collector } from '../collector.js';

export const collectStyles: Collector<'styles'> = ({ refused }) => [...refused];
