import type { Collector } from '../collector.js';
import { styles } from './fact.js';

/** The browser is asked for them. @see ../../render/steps/refused.ts */
export const collectStyles: Collector<'styles'> = () => styles.empty;
