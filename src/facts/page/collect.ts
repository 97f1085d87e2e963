import { flatMap } from '../../core/lists.js';
import type { Collector } from '../collector.js';
import type { Baseline } from '../../core/evidence.js';
import { page, type PageSetting } from './fact.js';

export const collectPage: Collector<'page'> = ({ reading, happened, stillMoving, baseline }) => ({
  atLoad: reading?.first.width ?? page.empty.atLoad,
  afterScroll: reading?.scrolled ? reading.after : null,
  readAt: reading?.readAt ?? 'load',
  direction: reading?.raw.direction ?? 'ltr',
  focused: reading?.first.focused ?? null,
  scrolled: reading?.first.scrolled ?? 0,
  settings: reading && baseline ? compareSettings(baseline.settings, reading.raw.settings) : [],
  stillMoving: [...stillMoving, ...(reading?.stillMoving ?? [])],
  replaced: happened.replaced,
});

function compareSettings(
  without: Baseline['settings'],
  now: Readonly<Record<string, string>>,
): PageSetting[] {
  const names = [...new Set([...Object.keys(without), ...Object.keys(now)])];
  return flatMap(names, (what) => {
    const before = what in without ? without[what]! : '';
    const after = now[what] ?? '';
    return before === null || before === after ? [] : [{ what, without: before, with: after }];
  });
}
