import type { FactKind, Replaced } from '../../core/evidence.js';
import { mapPresent } from '../../core/lists.js';
import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';
import type { Inserted } from '../../core/markup/match.js';
import { canCover } from '../../facts/layers/read.js';
import {
  OBJECT_KINDS,
  OBJECT_READERS,
  PAGE_KINDS,
  PAGE_READERS,
  type RawFacts,
} from '../../facts/readers.js';
import { ask } from '../in-page/channel.js';
import type { Notebook } from '../in-page/observe.js';
import { walk } from '../in-page/shared.js';

/** Facts as read in the page; box and style stand with the element of that id. */
export interface RawObjects extends RawFacts {
  sounds: string[];
  prints: number;
  writers: string[];
  /** What of the page's globals and of the browser's own is another than before the snippet came. */
  replaced: Replaced[];
  /** Addresses of scripts that the parser waits for. */
  held: string[];
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
export function readObjects({ cap, everywhere, kinds }: ObjectWish): RawObjects {
  const book = globalThis.mivketNotebook;
  const failed: RawObjects['failed'] = {};
  return {
    ...readEach({ cap, everywhere, kinds }, failed),
    ...readPageFacts(kinds, failed),
    sounds: book.sounds,
    prints: book.prints,
    writers: book.writers,
    replaced: kinds.includes('scripts') ? listReplaced(book.channel) : [],
    held: listHeld(book.page),
    waits: book.waits,
    order: listOrder(book.order),
    late: Object.fromEntries([...book.late].map(([slot, noted]) => [slot, listOrder(noted)])),
    layered: kinds.includes('layers') && canCover(book.page, everywhere),
    unplaced: book.full,
    failed,
  };
}

const MOST_REPLACED = 50;

function listReplaced(channel: Element | null): Replaced[] {
  const lines = ask(channel, 'globals').split('\n', MOST_REPLACED);
  return mapPresent(lines, (line) => {
    const [, how, of, name] = /^(added|replaced|gone) (page|browser) (.{1,200})/.exec(line) ?? [];
    return name ? ({ how, of, name } as Replaced) : null;
  });
}

function listHeld(page: Document): string[] {
  const all = [...page.querySelectorAll<HTMLScriptElement>('script[src]')];
  const held = all.filter((one) => !one.async && !one.defer && one.type !== 'module');
  return held.map(({ src }) => src);
}

type Found = Pick<RawFacts, (typeof OBJECT_KINDS)[number]>;

/** Goes through the elements once, for all kinds that are told of them one by one. */
function readEach({ cap, everywhere, kinds }: ObjectWish, failed: RawObjects['failed']): Found {
  const book = globalThis.mivketNotebook;
  const found = Object.fromEntries(OBJECT_KINDS.map((kind): [string, unknown[]] => [kind, []]));
  const readers = OBJECT_KINDS.filter((kind) => kinds.includes(kind)).map(
    (kind) => [kind, OBJECT_READERS[kind]] as const,
  );
  for (const [, reader] of readers) reader.begin?.();
  const slots = book.page.querySelectorAll(`[${SLOT_ATTRIBUTE}]`);
  let passed = 0;
  for (const real of walk(everywhere ? [book.page.documentElement] : [...slots])) {
    if (++passed > cap) break;
    const node = book.own(real);
    for (const [kind, reader] of readers) {
      try {
        const fact = reader.fits(real, node) ? reader.read(real, node, book) : null;
        if (fact !== null) found[kind]!.push(fact);
      } catch (error) {
        failed[kind] = String(error);
      }
    }
  }
  return found as Found;
}

/** What the page as a whole tells. */
function readPageFacts(kinds: readonly FactKind[], failed: RawObjects['failed']) {
  const read = PAGE_KINDS.map((kind): [string, unknown[]] => {
    try {
      return [kind, kinds.includes(kind) ? PAGE_READERS[kind]() : []];
    } catch (error) {
      failed[kind] = String(error);
      return [kind, []];
    }
  });
  return Object.fromEntries(read) as Pick<RawFacts, (typeof PAGE_KINDS)[number]>;
}

function listOrder(order: Notebook['order']): Inserted[] {
  const positions = new Map<Node, number>(order.map(({ node }, i) => [node, i]));
  return order.map(({ signature, parent }) => ({ signature, parent: positions.get(parent) ?? -1 }));
}
