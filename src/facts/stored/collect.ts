import type { Collector } from '../collector.js';

/** What the page without the snippet stores too is the page's. */
export const collectStored: Collector<'stored'> = ({ reading, baseline }) => {
  const own = new Set(baseline?.stored);
  return (reading?.stored ?? []).filter((one) => !own.has(nameStored(one)));
};

/** What one stored thing is known by. */
export function nameStored({ kind, host, name }: { kind: string; host: string; name: string }) {
  return `${host} ${kind} ${name}`;
}
