import type { Baseline, Evidence, FactKind, Facts, Render } from './evidence.js';
import type { House, Level } from './house/house.js';
import type { Markup } from './markup/markup.js';
import type { Edit, Snippet, Span } from './snippet.js';

/** A render as a check sees it: the kinds of evidence it asked for, and no others. */
export type RenderOf<K extends FactKind> = Pick<Facts, K> & {
  render: Render;
  /** There was more than was read: what is not among it may stand elsewhere. */
  partial: boolean;
};

/** What a check judges: the snippet, its markup, the house, and all its renders without gaps. */
export interface Case<K extends FactKind> {
  snippet: Snippet;
  markup: Markup;
  house: House;
  renders: RenderOf<K>[];
  /** The page without the snippet, by the viewport's name. */
  baselines: ReadonlyMap<string, Baseline>;
}

/** One place where it was seen, and what was measured there. Lengths in px, sizes in bytes. */
export interface Seen {
  slot: string;
  insert: string;
  viewport: string;
  width: number;
  density: number;
  scheme: string;
  engine: string;
  variant: string;
  measured: Record<string, string | number | boolean | null>;
}

/** A defect as plain data: place, facts and where it was seen. The words come later. */
export interface Fact<D> {
  where: Span;
  /** For what a script made: a selector. */
  made?: string;
  /** Names the culprit, so that one cause is told once. */
  subject: string;
  /** Facts at one place with the same `group` are one finding; left out: the subject. */
  group?: string;
  level?: Level;
  /** False when only the markup was read. */
  confirmed: boolean;
  data: D;
  seen: Seen[];
}

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
}

export interface CheckDefinition<K extends FactKind, D> {
  id: string;
  subject: 'paste' | 'page' | 'frames' | 'media' | 'pictures' | 'scripts';
  level: Level;
  /** The defect in a few words. */
  title: string;
  /** How it is decided, in a sentence or two. */
  decided: string;
  standard: string | null;
  /** The kinds of evidence it reads. */
  needs: readonly K[];
  /** Whether the markup alone can raise it; `part` where it shows some of the ways only. */
  markup: boolean | 'part';
  judge(c: Case<K>): Fact<D>[];
  says(data: D, fact: Fact<D>): Words;
  mend?(data: D, fact: Fact<D>, markup: Markup): Edit[] | null;
  /** The data of a usual case, for explaining what visitors notice and how it is cured. */
  sample: NoInfer<D>;
  examples: { faulty: Example[]; sound: Example[] };
}

/** A check with its types put away, as the engine holds it. */
export type Check = CheckDefinition<FactKind, unknown>;

/** Makes a check. Reading evidence that `needs` does not name fails to compile. */
export function defineCheck<const K extends FactKind, D>(definition: CheckDefinition<K, D>): Check {
  return Object.freeze(definition) as unknown as Check;
}

/** What a visitor notices of a finding, and how it is cured, in the usual case. */
export function explainCheck(check: Check): Words {
  const where = { offset: 0, endOffset: 0 };
  return check.says(check.sample, {
    where,
    subject: '',
    confirmed: true,
    data: check.sample,
    seen: [],
  });
}

/** The place of a sighting, from the render it was seen in. */
export function makeSeen(render: Render, measured: Seen['measured']): Seen {
  const { viewport, insert, engine, variant } = render;
  return {
    slot: render.snippets[0]?.slot ?? '',
    insert,
    viewport: viewport.name,
    width: viewport.width,
    density: viewport.density,
    scheme: viewport.scheme,
    engine,
    variant,
    measured,
  };
}

/**
 * The renders in which something of these kinds was read. Where it was not all of it (`kept`), what is
 * there can still be told of; that the rest is sound cannot.
 */
export function selectRenders<K extends FactKind>(
  renders: readonly Evidence[],
  kinds: readonly K[],
): RenderOf<K>[] {
  return renders
    .map((evidence) => {
      const gaps = evidence.gaps.filter((gap) => (kinds as readonly FactKind[]).includes(gap.kind));
      return { gaps, seen: { ...evidence, partial: gaps.length > 0 } };
    })
    .filter(({ gaps }) => gaps.every((gap) => gap.kept !== null))
    .map(({ seen }) => seen);
}
