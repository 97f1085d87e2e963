import type { Collector } from '../collector.js';
import { page } from './fact.js';

export const collectPage: Collector<'page'> = ({ reading, happened, stillMoving }) => ({
  atLoad: reading?.first.width ?? page.empty.atLoad,
  afterScroll: reading?.scrolled ? reading.after : null,
  readAt: reading?.readAt ?? 'load',
  direction: reading?.raw.direction ?? 'ltr',
  focused: reading?.first.focused ?? null,
  stillMoving: [...stillMoving, ...(reading?.stillMoving ?? [])],
  replaced: happened.replaced,
});
