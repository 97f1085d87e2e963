import type { Finding } from '../core/run.js';
import { formatBytes, formatPixels } from '../core/measure/units.js';
import { joinWords } from '../core/words/list.js';

/** What was measured, with units, where it was seen; alike sightings are told once. */
export function formatMeasured({ seen }: Finding, renders: number): string {
  const told = new Map<string, Finding['seen']>();
  for (const one of seen) {
    const words = Object.entries(one.measured).flatMap(([name, value]) =>
      formatMeasure(name, value),
    );
    const key = words.join(', ');
    told.set(key, [...(told.get(key) ?? []), one]);
  }
  const manySlots = new Set(seen.map(({ slot }) => slot)).size > 1;
  return [...told]
    .filter(([words]) => words)
    .map(
      ([words, places]) =>
        `${places.length === renders && renders > 1 ? 'everywhere' : formatPlaces(places, manySlots)}: ${words}`,
    )
    .join('; ');
}

/** `320, 390`, or with several slots `article and sidebar at 320, 390`: slots with the same widths together. */
function formatPlaces(places: Finding['seen'], manySlots: boolean): string {
  const widths = new Map<string, string[]>();
  for (const { slot, width } of places)
    widths.set(slot, [...(widths.get(slot) ?? []), String(width)]);
  if (!manySlots) return `at ${[...widths.values()].flat().join(', ')}`;
  const slots = new Map<string, string[]>();
  for (const [slot, list] of widths)
    slots.set(list.join(', '), [...(slots.get(list.join(', ')) ?? []), slot]);
  return [...slots].map(([list, names]) => `${joinWords(names)} at ${list}`).join(', ');
}

const PIXELS = /(width|height|overhang)$/i;
const WORDS: Record<string, string> = {
  overhang: 'sticks out by',
  scrollWidth: 'page width',
  windowWidth: 'window',
  elementWidth: 'its width',
  frameWidth: 'frame',
  slotWidth: 'slot',
  wireBytes: 'on the wire',
  unpackedBytes: 'unpacked',
  limitBytes: 'limit',
  waitedMs: 'waited',
  soundTrack: 'sound track',
  readyState: '',
  frames: 'frames shown',
};

function formatMeasure(name: string, value: string | number | boolean | null): string[] {
  const word = WORDS[name] ?? name;
  if (word === '' || value === null || (name === 'at' && value === 'load')) return [];
  if (typeof value === 'boolean') return [`${word}: ${value ? 'yes' : 'no'}`];
  if (typeof value === 'string') return [`${word}: ${value}`];
  if (/Bytes$/.test(name)) return [`${word} ${formatBytes(value)}`];
  if (/Ms$/.test(name)) return [`${word} ${Math.round(value)} ms`];
  return [`${word} ${PIXELS.test(name) ? formatPixels(value) : value}`];
}

/** What is said of a waiver; '' where there is none. */
export function formatWaiver(waiver: Finding['waiver']): string {
  if (!waiver) return '';
  const by = waiver.by === null ? '' : ` (${waiver.by})`;
  return waiver.expired
    ? `ran out on ${waiver.until}, so it counts as none: ${waiver.reason}${by}`
    : `until ${waiver.until}: ${waiver.reason}${by}`;
}
