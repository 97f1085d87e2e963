import type { Published } from '../snippet.js';
import type { House, Slot } from './house.js';

/** The one slot of a published page: the page. */
const WHOLE: Slot = {
  name: 'whole page',
  ranges: [{ from: 0, to: Infinity, width: 'full', inset: 0, height: null }],
  align: 'start',
  headingLevel: 1,
};

/** What is laid down, for a page that is published already: it has its own address, and all of it is looked at. */
export function housePublished(house: House, { address }: Published): House {
  const { origin } = new URL(address);
  return {
    ...house,
    origin,
    slots: [WHOLE],
    insert: ['inline'],
    headers: {},
    filter: undefined,
    expands: [],
  };
}
