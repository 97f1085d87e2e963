import type { Collector } from '../collector.js';

export const collectElements: Collector<'elements'> = ({ parted }) => parted?.elements ?? [];
