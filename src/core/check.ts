import type { z } from 'zod';
import type { Baseline, Evidence, FactKind, Facts } from './evidence.js';
import { flatMap } from './lists.js';
import type { House, Level } from './house/house.js';
import type { houseSchema } from './house/schema.js';
import type { Markup } from './markup/markup.js';
import type { Intent } from './mend/intent.js';
import { getEmpty, getPlace, getPlaceKey, getRenderKey } from './render.js';
import type { Place, Variant, Viewport } from './render.js';
import type { Snippet, Span } from './snippet.js';

/** A render as a check sees it: the kinds of evidence it asked for, and no others. */
export type RenderOf<K extends FactKind> = Pick<Facts, K> & {
  /** Where it was looked at. */
  at: Place;
  viewport: Viewport;
  variant: Variant;
  /** The page without the snippet; null where it is not known. */
  baseline: Baseline | null;
  /** There was more than was read: what is not among it may stand elsewhere. */
  partial: boolean;
};

/** What a check judges: the snippet, its markup, the house, and all its renders without gaps. */
export interface Case<K extends FactKind> {
  snippet: Snippet;
  markup: Markup;
  house: House;
  renders: readonly RenderOf<K>[];
  /** The day, `YYYY-MM-DD`. */
  today: string;
}

/** What was measured in one place. Lengths in px, sizes in bytes. */
export type Measures = Record<string, string | number | boolean | null>;

/** One place where it was seen, and what was measured there. */
export interface Seen<M = Measures> extends Place {
  measured: M;
}

/** What a fault is put down to, so that one cause is told once. */
export type Culprit =
  /** An element, by the offset of its tag, or one part of it: an attribute, by its name. */
  | { at: 'element'; offset: number; part?: string }
  /** What a script made, or what stands in a shadow root of the markup's, by a selector. */
  | { at: 'made'; selector: string; inRoot?: boolean }
  /** Something that is no one element's. */
  | { at: 'snippet'; what: string };

/**
 * From where to where, px of the window's width, something holds; `near` where an edge is not exact. `most`:
 * by how many px at most.
 */
export interface Range {
  from: number;
  to: number;
  near: boolean;
  most?: number;
  /** Where; left out: in every slot. */
  slot?: string;
}

/** A defect as plain data: place, facts and where it was seen. The words come later. */
export interface Fact<D, M = Measures> {
  where: Span;
  culprit: Culprit;
  /** Facts at one place with the same `group` are one finding; left out: those of one culprit. */
  group?: string;
  level?: Level;
  /** What was seen does not settle it: left out, it does. */
  doubtful?: boolean;
  /** What is inside the culprit makes it so: no size and no place of its own. */
  byContent?: boolean;
  data: D;
  seen: Seen<M>[];
  /** At what widths, where that was searched for. */
  ranges?: Range[];
}

/** What the markup shows by itself. */
export type MarkupFact<D> = Fact<D, never>;

/** What is said of a finding: what is wrong, what a visitor notices, what to change. */
export interface Words {
  message: string;
  notice: string;
  cure: string;
}

/** A snippet for which a check must speak or keep silent. */
export interface Example {
  name: string;
  code: string;
  /** The house under which it is so, as its file has it, but `page`: the text of its page. Left out: any. */
  under?: z.input<typeof houseSchema>;
}

/** What a check reads. A bare list of kinds is of the page as it is. */
export interface Needs<K extends FactKind> {
  kinds: readonly K[];
  variants: readonly Variant[];
  /** Whether a render of the page as it is calls for one in the other variants; left out: each does. */
  calls?(render: RenderOf<K>, about: About): boolean;
}

/** What is known before anything is rendered. */
export type About = Pick<Case<never>, 'markup' | 'house'>;

/** Which findings a check's own are the cause of, so that they are not told beside it. */
export interface Explains<D, M> {
  findings: readonly string[];
  /** Wherever it was seen; else only where both were seen at the same place. */
  anywhere?: boolean;
  /** Of the cause's sightings only these explain anything. */
  when?(seen: Seen<M>, data: D): boolean;
  /** Which of them; left out: those of the same culprit. */
  fits?(other: Fact<unknown>, data: D): boolean;
  /** Also what is heavier than itself. */
  heavier?: boolean;
}

export interface CheckDefinition<K extends FactKind, D, M extends Measures = Measures> {
  id: string;
  subject: 'paste' | 'page' | 'frames' | 'media' | 'pictures' | 'scripts';
  level: Level;
  /** The defect in a few words. */
  title: string;
  /** How it is decided, in a sentence or two. */
  decided: string;
  standard: string | null;
  /** What it reads of a render; a render is made only where a check needs it. */
  needs: readonly K[] | Needs<K>;
  /** Whether the markup alone can raise it; `part` where it shows some of the ways only. */
  markup: boolean | 'part';
  /** What of its needs is enough of a page some time after it came to rest; left out: all. */
  later?: readonly K[];
  /**
   * Whether it can judge a page that is published, which nothing is held against; left out: all can but those
   * about the paste and its place.
   */
  published?: boolean;
  explains?: readonly Explains<NoInfer<D>, NoInfer<M>>[];
  /** It is a fault only where it lasts: not what is over within the first minute, or further down the page. */
  lasts?: boolean;
  /** Whether a sighting means that something is too wide for its room there. */
  tooWide?(seen: Seen<NoInfer<M>>): boolean;
  judge(c: Case<K>): Fact<D, M>[];
  /** What the markup alone shows, where nothing was rendered; left out: `judge` tells that too. */
  unrendered?(c: Case<never>): MarkupFact<NoInfer<D>>[];
  says(data: D, fact: Fact<D, NoInfer<M>>): Words;
  /** What was measured at one place, in a few words, but for times; left out: it needs no saying. */
  measures?(measured: NoInfer<M>): string;
  /** What cures it, and it alone; null where nothing certain does. */
  mend?(data: D, fact: Fact<D, NoInfer<M>>, markup: Markup): Intent[] | null;
  /** What is wrong, in a few words; left out: the title. */
  brief?(data: D, fact: Fact<D, NoInfer<M>>): string;
  /** The data of usual cases, for explaining what visitors notice and how each is cured. */
  samples: NoInfer<D>[];
  examples: { faulty: Example[]; sound: Example[] };
}

/** A check with its types put away, as the engine holds it. */
export type Check = Omit<CheckDefinition<FactKind, unknown>, 'needs'> & { needs: Needs<FactKind> };

/** Whether a check can judge a page that is published. */
export function judgesPublished({ published, subject }: Check): boolean {
  return published ?? (subject !== 'paste' && subject !== 'page');
}

/** Makes a check. Reading evidence that `needs` does not name fails to compile. */
export function defineCheck<const K extends FactKind, D, M extends Measures = Measures>(
  definition: CheckDefinition<K, D, M>,
): Check {
  const { needs } = definition;
  const stated: Needs<K> = 'kinds' in needs ? needs : { kinds: needs, variants: ['as-is'] };
  return Object.freeze({ ...definition, needs: stated }) as unknown as Check;
}

/** What a visitor notices of a finding, and how it is cured, in the usual cases: each sentence once. */
export function explainCheck(check: Check): { notices: string[]; cures: string[] } {
  const said = check.samples.map((data) =>
    check.says(data, {
      where: { offset: 0, endOffset: 0 },
      culprit: { at: 'snippet', what: '' },
      data,
      seen: [],
    }),
  );
  const distinct = (sentences: string[]) => [...new Set(sentences)];
  return {
    notices: distinct(said.map(({ notice }) => notice)),
    cures: distinct(said.map(({ cure }) => cure)),
  };
}

/** A sighting, in the render it was made in. */
export function makeSeen<M extends Measures>({ at }: { at: Place }, measured: M): Seen<M> {
  return { ...at, measured };
}

/** The selector of a culprit that a script made; undefined for all others. */
export function getMade(culprit: Culprit): string | undefined {
  return culprit.at === 'made' ? culprit.selector : undefined;
}

/** Culprits of one key are the same. */
export function getCulpritKey(culprit: Culprit): string {
  if (culprit.at === 'element') return `${culprit.offset} ${culprit.part ?? ''}`;
  return culprit.at === 'made' ? `made ${culprit.selector}` : culprit.what;
}

/** Facts of one key, of one check, are one finding. */
export function getFactKey({ where, group, culprit }: Fact<unknown>): string {
  const what = group ?? getCulpritKey(culprit);
  return [where.offset, where.endOffset, what, getMade(culprit)].join(' ');
}

/** Of two sightings in one place, by what `getKey` tells of it, the first, which is the farther, stands for both. */
export function addSeen(
  seen: Seen[],
  more: readonly Seen[],
  getKey: (one: Seen) => string = getPlaceKey,
): void {
  const known = new Set(seen.map(getKey));
  seen.push(...more.filter((one) => !known.has(getKey(one))));
}

/** A render made ready for checks: what each would have to look up is looked up once, and nothing is copied for one. */
export interface Prepared {
  evidence: Evidence;
  /** As it is seen by a check that reads of it all that there is, and by one that does not. */
  whole: RenderOf<FactKind>;
  partial: RenderOf<FactKind>;
}

/** Makes renders ready, for however many checks. */
export function prepareRenders(
  renders: readonly Evidence[],
  baselines: ReadonlyMap<string, Baseline>,
): Prepared[] {
  return renders.map((evidence) => {
    const { viewport, variant } = evidence.render;
    const baseline = baselines.get(getRenderKey(getEmpty(evidence.render))) ?? null;
    const seen = { ...evidence, at: getPlace(evidence), viewport, variant, baseline };
    return { evidence, whole: { ...seen, partial: false }, partial: { ...seen, partial: true } };
  });
}

/**
 * The renders in which something of what is needed was read. Where it was not all of it (`kept`), what is
 * there can still be told of; that the rest is sound cannot.
 */
export function selectRenders<K extends FactKind>(
  renders: readonly Prepared[],
  { kinds, variants }: Needs<K>,
): RenderOf<K>[] {
  const wanted: readonly FactKind[] = kinds;
  return flatMap(renders, ({ evidence, whole, partial }): RenderOf<K>[] => {
    if (!variants.includes(evidence.render.variant)) return [];
    const gaps = evidence.gaps.filter((gap) => wanted.includes(gap.kind));
    if (gaps.some((gap) => gap.kept === null)) return [];
    return [gaps.length > 0 ? partial : whole];
  });
}
