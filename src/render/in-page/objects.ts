import type { FactKind } from '../../core/evidence.js';
import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';
import type { Inserted } from '../../core/markup/match.js';
import { readControl, type RawControl } from '../../facts/controls/read.js';
import { readCut, type RawCut } from '../../facts/cuts/read.js';
import { readFrame, type RawFrame } from '../../facts/frames/read.js';
import { readMedium, type RawMedium } from '../../facts/media/read.js';
import { readPicture, type RawPicture } from '../../facts/pictures/read.js';
import { canCover } from '../../facts/layers/read.js';
import { readPolicy, type RawRefusal } from '../../facts/policy/read.js';
import { readJumps, type RawJump } from '../../facts/shifts/read.js';
import { readText, type RawText } from '../../facts/texts/read.js';
import type { Notebook } from './observe.js';
import { walk } from './shared.js';

/** How facts of certain elements are read. `node` has an element's own properties even where the page hides them. */
export interface ObjectReader<T> {
  /** Called once before the elements are gone through. */
  begin?(): void;
  fits(real: Element, node: Element): boolean;
  /** null for what need not be told. */
  read(real: Element, node: Element, book: Notebook): T;
}

/** Facts of certain elements as read in the page; box and style stand with the element of that id. */
export interface RawObjects {
  frames: RawFrame[];
  media: RawMedium[];
  pictures: RawPicture[];
  controls: RawControl[];
  texts: RawText[];
  cuts: RawCut[];
  jumps: RawJump[];
  policy: RawRefusal[];
  sounds: string[];
  writers: string[];
  waits: { event: string; script: number }[];
  /** All elements put into the document, in order. */
  order: Inserted[];
  /** Those that were put in late, by their slot. */
  late: Record<string, Inserted[]>;
  /** Something could lie over something else. */
  layered: boolean;
  /** There were more than the order holds: of some it is not known whose they are. */
  unplaced: boolean;
  /** Kinds that could not be read, each with why. */
  failed: Partial<Record<FactKind, string>>;
}

const READERS: Record<
  'frames' | 'media' | 'pictures' | 'controls' | 'texts' | 'cuts',
  ObjectReader<unknown>
> = {
  frames: readFrame,
  media: readMedium,
  pictures: readPicture,
  controls: readControl,
  texts: readText,
  cuts: readCut,
};

/** Where the objects are read. */
export interface ObjectWish {
  /** So many elements are gone through: of more, no elements are told that an object could stand with. */
  cap: number;
  /** Also outside of the slots, where code may have put something. */
  everywhere: boolean;
  /** The kinds of facts that somebody wants: no others are read. */
  kinds: readonly FactKind[];
}

/** Reads what facts are told of beside the elements themselves, in shadow roots too. */
export function readObjects({ cap, everywhere, kinds: wanted }: ObjectWish): RawObjects {
  const book = globalThis.mivketNotebook;
  const found: Record<keyof typeof READERS, unknown[]> = {
    frames: [],
    media: [],
    pictures: [],
    controls: [],
    texts: [],
    cuts: [],
  };
  const failed: RawObjects['failed'] = {};
  const all = Object.keys(READERS) as (keyof typeof READERS)[];
  const kinds = all.filter((kind) => wanted.includes(kind));
  for (const kind of kinds) READERS[kind].begin?.();
  const slots = book.page.querySelectorAll(`[${SLOT_ATTRIBUTE}]`);
  let passed = 0;
  for (const real of walk(everywhere ? [book.page.documentElement] : [...slots])) {
    if (++passed > cap) break;
    const node = book.own(real);
    for (const kind of kinds) {
      try {
        const fact = READERS[kind].fits(real, node) ? READERS[kind].read(real, node, book) : null;
        if (fact !== null) found[kind].push(fact);
      } catch (error) {
        failed[kind] = String(error);
      }
    }
  }
  return {
    ...(found as Pick<RawObjects, keyof typeof READERS>),
    jumps: readJumps(),
    policy: readPolicy(),
    sounds: book.sounds,
    writers: book.writers,
    waits: book.waits,
    order: listOrder(book.order),
    late: Object.fromEntries([...book.late].map(([slot, noted]) => [slot, listOrder(noted)])),
    layered: wanted.includes('layers') && canCover(book.page, everywhere),
    unplaced: book.full,
    failed,
  };
}

function listOrder(order: Notebook['order']): Inserted[] {
  const positions = new Map<Node, number>(order.map(({ node }, i) => [node, i]));
  return order.map(({ signature, parent }) => ({ signature, parent: positions.get(parent) ?? -1 }));
}
