import type {
  Baseline,
  CauseFact,
  ElementFact,
  Facts,
  Target,
  TriedCure,
} from '../../core/evidence.js';
import { flatMap, groupBy } from '../../core/lists.js';
import {
  getElementFrom,
  readMarkup,
  type Markup,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { TOLERANCE } from '../../core/measure/culprits.js';
import { applyEdits } from '../../core/mend/apply.js';
import { composeMend, composeMends } from '../../core/mend/compose.js';
import { joinIntents, listTouched as listSet, type Intent } from '../../core/mend/intent.js';
import { makeSmall, takeOut, toChanges, type Change, type Ids } from '../../core/trial/change.js';
import { listCausesOf } from '../../core/trial/cause.js';
import { diffMarkup } from '../../core/trial/diff.js';
import { listRemedies, type Near } from '../../core/trial/remedies.js';
import { listSuspects, type Suspect } from '../../core/trial/suspects.js';
import {
  findCure,
  getTargetKey,
  hasCured,
  listSame,
  listTargets,
  type Trying,
} from '../../core/trial/targets.js';
import { AS_VISITED } from '../../core/render.js';
import type { BrowserPage } from '../page/browser-page.js';
import { defineStep } from './step.js';

/** What makes things too wide, and what cures it. */
export const causesStep = defineStep({
  name: 'causes',
  phase: 'changed by trying',
  kind: 'causes',
  isDue: ({ job, markup }) => AS_VISITED.includes(job.render.variant) && markup !== null,
  take: ({ page, markup, facts, baseline, known }) =>
    tryOut(page, { markup: markup!, facts, baseline, cures: known.cures }),
  tells: (_facts, { causes }) => ({ causes }),
  learns: (known, { found }) => ({ ...known, cures: [...known.cures, ...found] }),
  // What was known cures what it cured: only of what is too wide here more is found.
  teaches: ({ facts, baseline }) => listTargets({ ...facts, baseline }).length > 0,
});

interface Causes {
  causes: Facts['causes'];
  /** The cures that were found besides those that were known. */
  found: readonly Intent[][];
}

/** A snippet in a page that was read, and its cures so far. */
interface Tried {
  markup: Markup;
  facts: Omit<Trying, 'baseline'>;
  baseline: Baseline | null;
  /** What cured it at other widths. */
  cures: readonly Intent[][];
}

const MOST_EFFECTS = 8;
const LEAST_EFFECT = 0.5;

/**
 * Finds out what makes things too wide, and what cures it, by changing the page and putting it back.
 * @throws Error where the page does not answer
 */
async function tryOut(
  page: Pick<BrowserPage, 'read'>,
  { markup, facts, baseline, cures }: Tried,
): Promise<Causes> {
  const targets = listTargets({ ...facts, baseline });
  if (targets.length === 0 && cures.length === 0)
    return { causes: { targets: [], cures: [] }, found: [] };
  const more: Intent[][] = [];
  const trial = new Trial(page, markup, facts);
  const found = targets.length > 0 ? await trial.findCauses(targets) : [];
  const known = await trial.check(cures, found);
  for (const cause of found) {
    if (cause.before <= TOLERANCE || findCure({ targets: found, cures: known }, cause)) continue;
    const intents = await trial.seek(cause, listSame(found, cause));
    if (!intents) continue;
    const [tried] = await trial.check([intents], found);
    if (!tried || tried.harm !== null || !hasCured({ targets: found }, cause, tried)) continue;
    known.push(tried);
    more.push(intents);
  }
  return { causes: { targets: found, cures: known }, found: more };
}

/** One page to try things in. */
class Trial {
  readonly #page: Pick<BrowserPage, 'read'>;
  readonly #markup: Markup;
  readonly #elements: readonly ElementFact[];
  readonly #byId: ReadonlyMap<number, ElementFact>;
  readonly #slot: Tried['facts']['slot'];
  readonly #ids: Ids;

  constructor(page: Pick<BrowserPage, 'read'>, markup: Markup, { elements, slot }: Tried['facts']) {
    this.#page = page;
    this.#markup = markup;
    this.#elements = elements;
    this.#byId = new Map(elements.map((one) => [one.id, one]));
    this.#slot = slot;
    this.#ids = new Map(
      flatMap(elements, ({ id, from }) => ('offset' in from ? [[from.offset, id] as const] : [])),
    );
  }

  /** What makes each target too wide. */
  async findCauses(targets: readonly Target[]): Promise<CauseFact[]> {
    const near = flatMap(targets, (target) => this.#listNear(target).map(({ element }) => element));
    const suspects = flatMap(listSuspects(this.#markup, near), (suspect) => {
      const change = takeOut(this.#markup, this.#ids, suspect);
      const probe = makeSmall(this.#markup, this.#ids, suspect);
      return change ? [{ suspect, change, probe }] : [];
    });
    const asked = suspects.map(({ suspect, change, probe }) => ({
      change,
      probe,
      rule: suspect.rule,
    }));
    const causes: CauseFact[] = [];
    for (const group of groupByRoom(targets)) {
      const scene = { slot: this.#slot.name, targets: group, suspects: asked };
      const found = await this.#page.read('findEffects', scene);
      group.forEach((target, i) =>
        causes.push({
          ...target,
          before: found?.before[i] ?? 0,
          effects: rankEffects(suspects, (at) => found?.effects[at]?.[i] ?? 0),
          together: (found?.together[i] ?? []).map((at) => getSpan(suspects[at]!.suspect)),
        }),
      );
    }
    return causes;
  }

  /** Tries cures as they would be written. */
  async check(cures: readonly Intent[][], causes: readonly CauseFact[]): Promise<TriedCure[]> {
    const exact = flatMap(cures, (intents) => {
      const changes = this.#write(intents);
      return changes ? [{ intents, changes }] : [];
    });
    if (exact.length === 0) return [];
    const wanted = exact.map(({ changes }) => changes);
    const as = groupByRoom(causes.map(toTarget));
    // The page as it stands is looked at in any case: where nothing sticks out there nothing may move.
    const groups = as[0]?.[0]?.room === null ? as : [[], ...as];
    const answers: (readonly (Omit<TriedCure, 'intents'> | null)[] | null)[] = [];
    for (const targets of groups) {
      const strict = targets.length === 0;
      const scene = { slot: this.#slot.name, targets, cures: wanted, strict };
      answers.push(await this.#page.read('tryCures', scene));
    }
    return flatMap(exact, ({ intents }, i): TriedCure[] => {
      const ones = answers.map((answer) => answer?.[i] ?? null);
      if (ones.some((one) => one === null)) return [];
      const left = flatMap(ones, (one) => one!.left);
      const harm = ones.find((one) => one!.harm !== null)?.harm ?? null;
      return [{ intents: intents as TriedCure['intents'], left, harm }];
    });
  }

  /** What the source with a cure changes of the page; null where it is more than styles and attributes. */
  #write(intents: readonly Intent[]): Change[] | null {
    const edits = composeMend(this.#markup, intents);
    const wraps = intents.filter((one) => one.do === 'wrap');
    const around = toChanges(this.#markup, this.#ids, wraps);
    if (!edits || !around) return null;
    // What is put around elements is no difference in them.
    const others = intents.filter((one) => one.do !== 'wrap');
    const inside = wraps.length > 0 ? composeMends(this.#markup, [others]).edits : edits;
    const mended = readMarkup(applyEdits(this.#markup.text, inside));
    const changes = diffMarkup(this.#markup, mended, this.#ids);
    return changes && [...changes, ...around];
  }

  /** A cure of one target; null where none is found. */
  async seek(cause: CauseFact, same: readonly CauseFact[]): Promise<Intent[] | null> {
    const target = toTarget(cause);
    const causes = listCausesOf(this.#markup, cause);
    const remedies = flatMap(
      listRemedies(this.#markup, causes, this.#listNear(target)),
      (intents) => {
        const changes = toChanges(this.#markup, this.#ids, intents);
        return changes ? [{ intents, changes }] : [];
      },
    );
    const seek = (targets: readonly Target[]) =>
      this.#page.read('seekCure', {
        slot: this.#slot.name,
        targets,
        remedies: remedies.map(({ changes }) => changes),
        apart: remedies.map(({ intents }) => listSet(intents)),
      });
    // What fits the page is to fit its slot too, where it can.
    const own = same.map(toTarget);
    const inSlot = this.#aimAtSlot(target);
    const isMore = inSlot !== null && !own.map(getTargetKey).includes(getTargetKey(inSlot));
    const chosen = (isMore ? await seek([...own, inSlot]) : null) ?? (await seek(own));
    return chosen && joinIntents(flatMap(chosen, (i) => remedies[i]!.intents));
  }

  /** The slot's edge, for what reaches beyond the page's. */
  #aimAtSlot(target: Target): Target | null {
    const { x, width } = this.#slot.box;
    if (target.element === null || target.by !== 'reach' || width === 0) return null;
    return { ...target, edge: target.side === 'right' ? x + width : x };
  }

  /** A target's element, what in it is as wide, and what is around it: as far as it is in the source. */
  #listNear({ element: id, edge, side }: Target): Near[] {
    const byId = this.#byId;
    const main = id === null ? undefined : byId.get(id);
    if (!main) return [];
    const around: ElementFact[] = [];
    for (
      let at = byId.get(main.parent ?? -1);
      at && around.length < 2;
      at = byId.get(at.parent ?? -1)
    )
      around.push(at);
    const isOut = ({ box }: ElementFact) =>
      side === 'right' ? box.x + box.width > edge + TOLERANCE : box.x < edge - TOLERANCE;
    const inside = this.#elements
      .filter((one) => one !== main && isOut(one) && isWithin(one, main, byId))
      .slice(0, MOST_INSIDE);
    return flatMap([main, ...inside, ...around], (one) => {
      const element = this.#getElement(one);
      return element ? [{ element, display: one.style.display, width: one.box.width }] : [];
    });
  }

  #getElement({ from }: ElementFact): MarkupElement | null {
    return 'offset' in from ? getElementFrom(this.#markup, from.offset) : null;
  }
}

/** Those that are tried in the page as it stands come first. */
function groupByRoom(targets: readonly Target[]): Target[][] {
  const groups = [...groupBy(targets, ({ room }) => room)];
  return groups.sort(([a], [b]) => (a ?? -1) - (b ?? -1)).map(([, group]) => group);
}

function toTarget({ element, by, side, edge, room }: CauseFact): Target {
  return { element, by, side, edge, room };
}

const MOST_INSIDE = 6;

function isWithin(
  one: ElementFact,
  outer: ElementFact,
  byId: ReadonlyMap<number, ElementFact>,
): boolean {
  for (let at = byId.get(one.parent ?? -1); at; at = byId.get(at.parent ?? -1))
    if (at === outer) return true;
  return false;
}

function getSpan({ offset, endOffset }: Suspect): { offset: number; endOffset: number } {
  return { offset, endOffset };
}

function rankEffects(
  suspects: readonly { suspect: Suspect }[],
  getEffect: (at: number) => number,
): CauseFact['effects'] {
  return suspects
    .map(({ suspect }, at) => ({ ...getSpan(suspect), px: Math.round(getEffect(at) * 100) / 100 }))
    .filter(({ px }) => px >= LEAST_EFFECT)
    .sort((a, b) => b.px - a.px)
    .slice(0, MOST_EFFECTS);
}
