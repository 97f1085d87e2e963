import { SLOT_ATTRIBUTE } from '../../../core/host/slot-attribute.js';
import type { Change } from '../../../core/trial/change.js';
import { Changes } from './changes.js';
import { Hold } from './hold.js';
import { Picture, type Harm } from './harm.js';
import { Gauge, type Aim } from './measure.js';

/** A declaration or an attribute that is taken out to see what it does. */
export interface Suspect {
  change: Change;
  /** A width that is stated, made very small: it sets the width where that helps; null for all else. */
  probe: Change | null;
  /** What its rule is for and when it holds; null where it stands on a tag. */
  rule: { selector: string; media: string | null } | null;
}

/** Where something is tried, and what it is held against. */
export interface Scene {
  slot: string;
  targets: readonly Aim[];
}

/** What each suspect does: by how many px less each target is too wide without it. */
export interface Effects {
  /** By how many px each target is too wide as it stands. */
  before: number[];
  /** For each suspect one number a target; null where it has no part in the page. */
  effects: (number[] | null)[];
  /** For each target the suspects that lessen it together, where none does by itself. */
  together: number[][];
}

/** What a cure does. */
export interface Tried {
  /** By how many px each target is still too wide. */
  left: number[];
  harm: Harm;
}

/** A thing to try against one target: several changes together. */
export type Remedy = readonly Change[];

/** No page is tried on for longer than this, ms. */
const LONGEST = 2500;
const TOLERANCE = 1;
const MOST_ROUNDS = 5;
/** What lessens it by less than this is no help, px. */
const LEAST_HELP = 2;

/** Takes each suspect out, by itself, and puts it back. The page must not be used for anything else afterwards. */
export function findEffects(scene: Scene & { suspects: readonly Suspect[] }): Effects | null {
  return within(scene, (gauges, clock) => {
    const before = gauges.map((gauge) => gauge.read());
    const effects = scene.suspects.map(({ change, rule }) => {
      if (clock() || (rule !== null && !counts(rule))) return null;
      return withChanges([change], () => gauges.map((gauge, i) => before[i]! - gauge.read()));
    });
    gauges.forEach((gauge, i) => {
      // A picture without its width is as wide as it comes: there the width is not what makes it too wide.
      const { by } = scene.targets[i]!;
      if (by !== 'width' || before[i]! <= TOLERANCE || !isUnknown(effects, i)) return;
      for (const [at, { probe }] of scene.suspects.entries()) {
        if (probe === null || effects[at] === null || clock()) continue;
        effects[at]![i] = withChanges([probe], () => before[i]! - gauge.read()) ?? 0;
      }
    });
    const together = gauges.map((gauge, i) =>
      before[i]! > TOLERANCE && isUnknown(effects, i)
        ? findTogether(scene.suspects, effects, gauge, clock)
        : [],
    );
    const after = gauges.map((gauge) => gauge.read());
    // A page that is not put back as it was tells nothing.
    return after.every((now, i) => Math.abs(now - before[i]!) < 0.5)
      ? { before, effects, together }
      : null;
  });
}

/** Whether nothing by itself lessens by how much a target is too wide. */
function isUnknown(effects: readonly (number[] | null)[], target: number): boolean {
  return effects.every((one) => (one?.[target] ?? 0) < TOLERANCE);
}

/** Takes out one after the other until it tells, and puts back what was not needed for that. */
function findTogether(
  suspects: readonly Suspect[],
  effects: readonly (number[] | null)[],
  gauge: Gauge,
  isOver: () => boolean,
): number[] {
  const before = gauge.read();
  const lessens = (some: readonly number[]) => {
    const changes = some.map((i) => suspects[i]!.change);
    return (withChanges(changes, () => before - gauge.read()) ?? 0) > TOLERANCE;
  };
  const taken: number[] = [];
  // Those that stand in the page at all.
  for (const i of effects.keys()) {
    if (effects[i] === null || isOver()) continue;
    taken.push(i);
    if (lessens(taken)) break;
  }
  if (!lessens(taken)) return [];
  return taken.reduceRight((kept, i) => {
    const without = kept.filter((one) => one !== i);
    return without.length > 0 && !isOver() && lessens(without) ? without : kept;
  }, taken);
}

/** For each cure what it does. @param strict nothing is to move at all */
export function tryCures(
  scene: Scene & { cures: readonly Remedy[]; strict: boolean },
): (Tried | null)[] | null {
  return within(scene, (gauges, clock, slot) => {
    const picture = new Picture(slot);
    return scene.cures.map((cure) =>
      clock()
        ? null
        : withChanges(cure, () => ({
            left: gauges.map((gauge) => gauge.read()),
            harm: picture.compare(scene.strict, listChanged(cure)),
          })),
    );
  });
}

/** What of the remedies together makes a target fit, as their places in the list; null where nothing does. */
export function seekCure(
  scene: Scene & { remedies: readonly Remedy[]; apart: readonly (readonly string[])[] },
): number[] | null {
  return within(scene, (gauges, clock, slot) => new CureSearch(scene, gauges, slot, clock).run());
}

/** Puts remedies together, the one that helps most first, until nothing sticks out. */
class CureSearch {
  readonly #remedies: readonly Remedy[];
  /** What each of them sets: two that set the same do not go together. */
  readonly #apart: readonly (readonly string[])[];
  readonly #picture: Picture;
  /** What cures, but changes something where there is room enough. */
  #second: number[] | null = null;

  constructor(
    { remedies, apart }: { remedies: readonly Remedy[]; apart: readonly (readonly string[])[] },
    private readonly gauges: readonly Gauge[],
    private readonly slot: Element,
    private readonly isOver: () => boolean,
  ) {
    this.#remedies = remedies;
    this.#apart = apart;
    this.#picture = new Picture(slot);
  }

  run(): number[] | null {
    const chosen: number[] = [];
    let left = this.#read();
    for (let round = 0; round < MOST_ROUNDS; round++) {
      const best = this.#findBest(chosen, left);
      if (!best || this.isOver()) break;
      chosen.push(best.index);
      if (best.left <= TOLERANCE) return this.#prune(chosen);
      left = best.left;
    }
    return this.#second && this.#prune(this.#second);
  }

  /** The first that cures; else the one that helps most. */
  #findBest(chosen: readonly number[], left: number): { index: number; left: number } | null {
    const taken = new Set(chosen.flatMap((i) => this.#apart[i]!));
    let best: { index: number; left: number } | null = null;
    for (let index = 0; index < this.#remedies.length; index++) {
      if (this.isOver()) return null;
      if (this.#apart[index]!.some((one) => taken.has(one))) continue;
      const now = this.#measure([...chosen, index]);
      if (now === null) continue;
      if (now.left <= TOLERANCE) {
        if (now.harm !== null) continue;
        if (this.#isIdle([...chosen, index])) return { index, left: now.left };
        this.#second ??= [...chosen, index];
      } else if (left - now.left >= LEAST_HELP && now.left < (best?.left ?? Infinity) - TOLERANCE)
        best = { index, left: now.left };
    }
    return best;
  }

  #measure(chosen: readonly number[]): { left: number; harm: Harm } | null {
    return withChanges(this.#list(chosen), () => {
      const left = this.#read();
      return { left, harm: left <= TOLERANCE ? this.#picture.compare(false, []) : null };
    });
  }

  /** Whether it does nothing at all where there is room enough. */
  #isIdle(chosen: readonly number[]): boolean {
    return withRoom(this.slot, PLENTY, () => {
      const picture = new Picture(this.slot);
      const changes = this.#list(chosen);
      return withChanges(changes, () => picture.compare(true, listChanged(changes))) === null;
    });
  }

  #list(chosen: readonly number[]): Change[] {
    return chosen.flatMap((i) => [...this.#remedies[i]!]);
  }

  /** The page and the slot are to fit: what is farther out counts. */
  #read(): number {
    return Math.max(...this.gauges.map((gauge) => gauge.read()));
  }

  /** Without what is not needed. */
  #prune(chosen: readonly number[]): number[] {
    let kept = [...chosen];
    for (const one of chosen.slice(0, -1)) {
      const without = kept.filter((i) => i !== one);
      const now = this.#measure(without);
      if (now && now.left <= TOLERANCE && now.harm === null) kept = without;
    }
    return kept;
  }
}

/** A slot so wide that hardly anything is too wide for it, px. */
const PLENTY = 3000;

/** The elements that are changed; what a rule of a sheet is for is not known. */
function listChanged(changes: readonly Change[]): Element[] {
  const { nodes } = globalThis.mivketNotebook;
  return changes.flatMap(({ id, do: what }) => (what === 'text' ? [] : (nodes.get(id) ?? [])));
}

function withChanges<T>(changes: readonly Change[], look: () => T): T | null {
  const made = new Changes();
  if (!made.make(changes)) return null;
  try {
    held?.restore();
    return look();
  } finally {
    made.takeBack();
    held?.restore();
  }
}

/** The animations as they were when the scene was set. */
let held: Hold | null = null;

/** Sets the scene, and takes it away again: no transition runs, and the slot is as narrow as is asked for. */
function within<T>(
  { slot: name, targets }: Scene,
  act: (gauges: Gauge[], isOver: () => boolean, slot: Element) => T,
): T | null {
  const { page } = globalThis.mivketNotebook;
  const slot = page.querySelector(`[${SLOT_ATTRIBUTE}="${CSS.escape(name)}"]`);
  if (!slot) return null;
  const room = targets.find((one) => one.room !== null)?.room ?? null;
  const end = performance.now() + LONGEST;
  held = new Hold();
  return withRule('*, *::before, *::after { transition: none !important; }', () =>
    withRoom(slot, room, () => {
      const gauges = targets.map((target) => new Gauge(target));
      return act(gauges, () => performance.now() > end, slot);
    }),
  );
}

/** With the slot of a certain width, px; null: as wide as it is. */
function withRoom<T>(slot: Element, room: number | null, act: () => T): T {
  if (room === null) return act();
  const name = CSS.escape(globalThis.mivketNotebook.own(slot).getAttribute(SLOT_ATTRIBUTE)!);
  const rule = `width: ${room}px !important; min-width: 0 !important; max-width: none !important; box-sizing: content-box !important;`;
  return withRule(`[${SLOT_ATTRIBUTE}="${name}"] { ${rule} }`, act);
}

function withRule<T>(css: string, act: () => T): T {
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(css);
  // The list itself lives on: a copy is what it is put back to.
  const sheets = [...document.adoptedStyleSheets];
  document.adoptedStyleSheets = [...sheets, sheet];
  try {
    return act();
  } finally {
    document.adoptedStyleSheets = sheets;
  }
}

const GENERATED =
  /::?(before|after|first-line|first-letter|marker|placeholder|selection|backdrop)\b/g;

/** Whether a rule is for anything on this page, in this window. What cannot be told is tried. */
function counts({ selector, media }: { selector: string; media: string | null }): boolean {
  if (media !== null && !matchMedia(media).matches) return false;
  if (/&/.test(selector)) return true;
  try {
    const owners = selector.replace(GENERATED, '');
    return globalThis.mivketNotebook.page.querySelector(owners) !== null;
  } catch {
    return true;
  }
}
