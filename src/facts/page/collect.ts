import type { Collector } from '../collector.js';

export const collectPage: Collector<'page'> = ({ reading, happened, stillMoving }) => ({
  atLoad: reading?.first.width ?? { scrollWidth: 0, clientWidth: 0, scrollable: false },
  afterScroll: reading?.scrolled ? reading.after : null,
  readAt: reading?.readAt ?? 'load',
  direction: reading?.raw.direction ?? 'ltr',
  stillMoving: [...stillMoving, ...(reading?.stillMoving ?? [])],
  replaced: happened.replaced,
});
