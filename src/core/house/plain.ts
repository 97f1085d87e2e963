import type { House } from './house.js';
import { changesRenders } from './schema.js';

/** A house as JSON can hold it: an open end of a slot's range is null. */
export type PlainHouse = unknown;

/** @see fromPlainHouse */
export function toPlainHouse(house: House): PlainHouse {
  const slots = house.slots.map((slot) => ({
    ...slot,
    ranges: slot.ranges.map((range) => ({ ...range, to: range.to === Infinity ? null : range.to })),
  }));
  return { ...house, slots };
}

/** Back from what `toPlainHouse` gave. */
export function fromPlainHouse(plain: PlainHouse): House {
  const house = plain as House;
  const slots = house.slots.map((slot) => ({
    ...slot,
    ranges: slot.ranges.map((range) => ({ ...range, to: range.to ?? Infinity })),
  }));
  return { ...house, slots };
}

/** What of a house decides how snippets are rendered: another house with the same renders the same. */
export function getRenderedPart(house: House): PlainHouse {
  const entries = Object.entries(house).filter(([key]) => changesRenders(key));
  return toPlainHouse(Object.fromEntries(entries) as unknown as House);
}
