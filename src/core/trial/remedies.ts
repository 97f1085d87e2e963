import { flatMap, mapPresent } from '../lists.js';
import { findDeclaration } from '../markup/styles.js';
import type { Markup, MarkupElement } from '../markup/markup.js';
import { shrinkStated, writeStated, writeOnTag } from '../mend/width.js';
import { joinIntents, type Intent } from '../mend/intent.js';
import { REPLACED } from '../standards/elements.js';
import type { Stated } from './stated.js';

type Declarations = Record<string, string>;

/** An element that may be changed, with how it is laid out. */
export interface Near {
  element: MarkupElement;
  display: string;
  /** How wide it is, px. */
  width: number;
}

const MOST_CAUSES = 6;

/**
 * What may be tried against something that is too wide, what changes least first: changes of what makes it
 * so, then what usually helps, on it and around it.
 * @param causes what bears on it, what is to blame first
 * @param near the element itself, what sticks out in it, and what is around it
 */
export function listRemedies(
  markup: Markup,
  causes: readonly Stated[],
  near: readonly Near[],
): Intent[][] {
  const stated = causes.slice(0, MOST_CAUSES).map((one) => mendStated(markup, one, near));
  const firsts = stated.map(([first]) => first ?? []);
  const usual = flatMap(USUAL, ({ fits, set, around }) =>
    near
      .filter((one) => fits(one))
      .map(({ element }): Intent[] =>
        around
          ? [{ do: 'wrap', element: element.offset, declarations: set }]
          : writeOnTag(element, set),
      ),
  );
  // What tells only together is changed together.
  const together = firsts.length > 1 ? [joinIntents(firsts.flat())] : [];
  const bands = near.map(({ element }) => mendBand(markup, element));
  return [...bands, ...stated.flat(), ...together, ...usual].filter((one) => one.length > 0);
}

/** A width that goes by the window, as the page's is not: the window's has the scroll bar in it. */
const BY_WINDOW = /(?<![\d.])100(vw|dvw|svw|lvw)\b/;
/** As much of a margin as goes by the window. */
const BACK_BY_WINDOW = /calc\([^()]*vw[^()]*\)|-[\d.]+[dsl]?vw\b/g;
/** What puts something elsewhere than where it would stand, and what leaves it there; null: all else of it stays. */
const PLACES: Readonly<Record<string, string | null>> = {
  margin: null,
  ...{ left: 'auto', right: 'auto', 'inset-inline-start': 'auto', 'inset-inline': 'auto' },
  ...{ 'margin-left': '0', 'margin-right': '0', 'margin-inline': '0' },
  ...{ 'margin-inline-start': '0', 'margin-inline-end': '0' },
  ...{ transform: 'none', translate: 'none' },
};

/** What is as wide as the window, and is put where that begins, fits in with neither only. */
function mendBand(markup: Markup, element: MarkupElement): Intent[] {
  const width = findDeclaration(markup, element, /^(min-)?(width|inline-size)$/);
  if (!width || !BY_WINDOW.test(width.value)) return [];
  const places = mapPresent(Object.keys(PLACES), (property) =>
    findDeclaration(markup, element, [property]),
  ).filter(({ property, value }) =>
    PLACES[property] === null ? value.search(BACK_BY_WINDOW) >= 0 : /[1-9]/.test(value),
  );
  if (places.length === 0) return [];
  return joinIntents([
    ...writeStated(width, element, { [width.property]: '100%' }),
    ...flatMap(places, (one) =>
      writeStated(one, element, {
        [one.property]: PLACES[one.property] ?? one.value.replace(BACK_BY_WINDOW, '0'),
      }),
    ),
  ]);
}

/** Changes of one declaration or attribute, the smallest first. */
function mendStated(markup: Markup, stated: Stated, near: readonly Near[]): Intent[][] {
  const owner = stated.owner ?? near[0]?.element ?? null;
  const measured = near.find(({ element }) => element === owner);
  const shrunk = shrinkStated(markup, owner, { ...stated, outer: measured?.width ?? null });
  const { declaration } = stated;
  if (declaration)
    return [...shrunk, ...listInstead(stated).map((one) => writeStated(declaration, owner, one))];
  if (!owner) return shrunk;
  return [...shrunk, [{ do: 'remove-attribute', element: owner.offset, name: stated.property }]];
}

const LENGTH = /-?[\d.]+(px|r?em|ch|ex|pt|vw|cm|mm|in)/g;

/** What may stand in the place of a declaration. */
function listInstead({ property, value }: Stated): Declarations[] {
  if (/^min-(width|inline-size)$/.test(property))
    return /^[\d.]+[a-z]+$/i.test(value)
      ? [{ [property]: `min(${value}, 100%)` }, { [property]: '0' }]
      : [{ [property]: '0' }];
  if (/^flex(-basis)?$/.test(property))
    return [
      { flex: '0 1 auto', 'min-width': '0' },
      { [property]: value, 'max-width': '100%' },
    ];
  if (property === 'flex-shrink') return [{ [property]: '1' }];
  if (property === 'white-space')
    return /^pre/.test(value)
      ? [{ [property]: 'pre-wrap', 'overflow-wrap': 'anywhere' }]
      : [{ [property]: 'normal' }, { [property]: 'normal', 'overflow-wrap': 'anywhere' }];
  if (property === 'text-wrap' || property === 'text-wrap-mode') return [{ [property]: 'wrap' }];
  if (property === 'word-break') return [{ [property]: 'normal' }];
  if (/^flex-wrap$/.test(property)) return [{ [property]: 'wrap' }];
  if (property === 'flex-flow')
    return [{ [property]: value.replace(/\bnowrap\b/, '').trim() + ' wrap' }];
  if (property === 'display' && /flex/.test(value))
    return [{ display: value, 'flex-wrap': 'wrap' }];
  if (/^grid-template(-columns)?$|^grid$/.test(property)) return listTracks(property, value);
  if (property === 'grid-auto-columns') return [{ [property]: 'minmax(0, 1fr)' }];
  if (property === 'grid-auto-flow') return [{ [property]: 'row' }];
  if (/^(margin|left|right|inset)/.test(property)) return listPlaces(property, value);
  if (/^padding/.test(property)) return listBounds(property, value, ['20%', '10%', '5%', '2%']);
  if (/gap$/.test(property)) return listBounds(property, value, SHARES);
  if (property === 'columns' || property === 'column-count')
    return ['30%', '20%', '10%', '2%'].map((gap) => ({ [property]: value, 'column-gap': gap }));
  if (property === 'text-indent') return listBounds(property, value, SHARES);
  if (property === 'font-size' || property === 'letter-spacing')
    return listBounds(property, value, ['20vw', '15vw', '12vw', '10vw', '8vw', '6vw']);
  if (property === 'zoom') return [{ [property]: '1' }];
  return [];
}

/** Parts of the room, the largest first: what fits with it changes least. */
const SHARES = ['80%', '60%', '45%', '30%', '20%', '10%', '5%', '2%'];

function listBounds(property: string, value: string, most: readonly string[]): Declarations[] {
  return most
    .map((share) => bound(value, share))
    .filter((one) => one !== value)
    .map((one) => ({ [property]: one }));
}

/** Each length no more than a part of the room. */
function bound(value: string, most: string): string {
  return value.replace(LENGTH, (length) =>
    /^(0|-)/.test(length) ? length : `min(${length}, ${most})`,
  );
}

/** What goes beyond an edge goes no farther than it. */
function listPlaces(property: string, value: string): Declarations[] {
  const drawn = value.replace(/-[\d.]+(px|r?em|%|ch|vw|pt)/g, '0');
  const inside = drawn === value ? [] : [{ [property]: drawn }];
  return [...inside, ...listBounds(property, value, SHARES)];
}

const FLEXIBLE = /(?<![\w.(-]|minmax\([^)]*)(\d*\.?\d+fr|auto|max-content|min-content)(?![\w(])/g;

/** Tracks that shrink with their room. */
function listTracks(property: string, value: string): Declarations[] {
  if (property !== 'grid-template-columns') return [];
  const filled = value.replace(
    /minmax\(\s*([\d.]+[a-z]+)\s*,/gi,
    (_all, least: string) => `minmax(min(${least}, 100%),`,
  );
  const shrinking = value
    .replace(/minmax\(\s*[^,()]+,/gi, 'minmax(0,')
    .replace(FLEXIBLE, (track) => `minmax(0, ${track})`)
    .replace(/(?<![\w.-]|[(,]\s*|minmax\([^)]*)([\d.]+(px|r?em|ch))(?![\w)])/g, 'minmax(0, $1)');
  const repeated = value.replace(
    /repeat\(\s*\d+\s*,\s*([\d.]+(px|r?em|ch))\s*\)/gi,
    (_all, size: string) => `repeat(auto-fit, minmax(min(${size}, 100%), ${size}))`,
  );
  const found = [filled, shrinking, repeated].filter((one) => one !== value);
  return [...new Set(found)].map((one) => ({ [property]: one }));
}

interface Usual {
  fits(near: Near): boolean;
  set: Declarations;
  /** Not on it, but on a div around it. */
  around?: true;
}

const isReplaced = ({ element }: Near) => REPLACED.has(element.name);
const isPicture = ({ element }: Near) => /^(img|video|canvas|svg)$/.test(element.name);
const isText = (near: Near) => !isReplaced(near) && !isTable(near);
const isTable = ({ element }: Near) => element.name === 'table';
const isPre = ({ element }: Near) => element.name === 'pre';
const isInFlow = ({ display, element }: Near) =>
  display !== 'inline' && !/^table-/.test(display) && !/^t[dhr]|tbody|thead|col/.test(element.name);

/** What usually helps, what does least first. */
const USUAL: readonly Usual[] = [
  { fits: (one) => isReplaced(one) && !isPicture(one), set: { 'max-width': '100%' } },
  { fits: isPicture, set: { 'max-width': '100%', height: 'auto' } },
  { fits: isPre, set: { 'overflow-x': 'auto' } },
  { fits: isPre, set: { 'overflow-x': 'auto', 'max-width': '100%', 'min-width': '0' } },
  { fits: (one) => isText(one) && !isPre(one), set: { 'overflow-wrap': 'anywhere' } },
  { fits: (one) => /flex/.test(one.display), set: { 'flex-wrap': 'wrap' } },
  { fits: (one) => (isInFlow(one) || isReplaced(one)) && !isTable(one), set: { 'min-width': '0' } },
  { fits: (one) => isInFlow(one), set: { 'box-sizing': 'border-box' } },
  { fits: (one) => isInFlow(one), set: { 'max-width': '100%', 'box-sizing': 'border-box' } },
  {
    fits: (one) => isText(one) && isInFlow(one),
    set: { 'min-width': '0', 'overflow-wrap': 'anywhere' },
  },
  { fits: (one) => isText(one) && one.display === 'block', set: { width: 'auto' } },
  { fits: (one) => isText(one) && !isPre(one), set: { 'white-space': 'normal' } },
  {
    fits: (one) => isText(one) && !isPre(one),
    set: { 'white-space': 'normal', 'overflow-wrap': 'anywhere' },
  },
  { fits: isPre, set: { 'white-space': 'pre-wrap', 'overflow-wrap': 'anywhere' } },
  { fits: isTable, set: { 'overflow-x': 'auto' }, around: true },
  { fits: isTable, set: { display: 'block', 'max-width': '100%', 'overflow-x': 'auto' } },
  {
    fits: isTable,
    set: { display: 'block', width: 'auto', 'max-width': '100%', 'overflow-x': 'auto' },
  },
  { fits: (one) => isInFlow(one), set: { 'margin-left': '0', 'margin-right': '0' } },
];
