import { compareParts } from '../../render/collect/own.js';
import type { Collector } from '../collector.js';

export const collectHost: Collector<'host'> = ({ parted, baseline }, { slot }) =>
  parted ? compareParts(parted.parts, baseline, slot.box) : [];
