import type { CauseFact } from '../evidence.js';
import { flatMap, mapPresent } from '../lists.js';
import type { Markup } from '../markup/markup.js';
import { TOLERANCE } from '../measure/culprits.js';
import type { Intent } from '../mend/intent.js';
import { findStated, listReplaced, type Stated } from './stated.js';

/** What of an element makes it reach too far. */
export type Reason =
  /** A width of its own. */
  | 'size'
  /** A margin, an offset or a transform. */
  | 'place'
  /** Padding, borders, gaps or an indent. */
  | 'room'
  /** Text that does not break. */
  | 'text'
  /** Letters that are large. */
  | 'letters'
  /** The columns of a grid. */
  | 'tracks'
  /** The row it stands in, which does not wrap. */
  | 'row'
  | 'animation'
  /** What is inside, or its own nature; nothing in the snippet states it. */
  | 'content';

/** What each property is about; of two that do the same, the earlier is the plainer one to blame. */
const ABOUT: readonly (readonly [RegExp, Reason])[] = [
  [
    /^((min|max)-)?(width|inline-size|height|block-size)$|^flex(-basis|-shrink|-grow)?$|^aspect-ratio$|^(size|cols)$/,
    'size',
  ],
  [/^column-width$/, 'size'],
  [/^(white-space|text-wrap|word-break|nowrap|wrap)/, 'text'],
  [/^(margin|left|right|inset|transform|translate|rotate|scale|zoom|hspace)/, 'place'],
  [/^(padding|border|gap|column|row-gap|text-indent|cell)/, 'room'],
  [/^grid/, 'tracks'],
  [/^animation/, 'animation'],
  [/^(display|flex-(wrap|flow|direction))$/, 'row'],
  [/^(font|letter-spacing|word-spacing|line-height|tab-size)/, 'letters'],
  [/^(position|float|clear|direction|writing-mode|align|justify|place)/, 'place'],
];

/** What does less than this part of what the strongest does is not the cause of it. */
const NEARLY = 0.9;
/** What does less than this part of the whole is no cause: what is inside is as wide by itself. */
const LEAST_PART = 0.2;

/**
 * What of the source makes a target too wide; null where nothing of it does by itself.
 * @param cure what was seen to cure it: of several causes the one that it changes is told
 * @param fits it would, by its own width: it is in the wrong place
 */
export function pickCause(
  markup: Markup,
  cause: CauseFact,
  { cure, fits }: { cure: readonly Intent[] | null; fits: boolean },
): Stated | null {
  const found = listCausesOf(markup, { ...cause, together: [] }, fits);
  const changed = found.find((one) => cure?.some((intent) => changes(intent, one)));
  return (cure && findSize(markup, cure)) ?? changed ?? found[0] ?? null;
}

/** Of size and place that are changed together the size: the place goes by it. */
function findSize(markup: Markup, cure: readonly Intent[]): Stated | null {
  const changed = flatMap(cure, (intent) => listReplaced(markup, intent));
  const size = changed.find((one) => getReason(one) === 'size');
  return changed.some((one) => getReason(one) === 'place') ? (size ?? null) : null;
}

/** Whether it is this declaration or attribute that is changed. */
function changes(intent: Intent, { where, owner, property }: Stated): boolean {
  if (intent.do === 'replace-text') return intent.span.offset === where.offset;
  if (intent.do === 'ask' || intent.do === 'wrap' || intent.element !== owner?.offset) return false;
  return intent.do === 'set-style' ? property in intent.declarations : intent.name === property;
}

/** Whether anything was found to make it so. */
export function isFound({ effects, together }: CauseFact): boolean {
  return effects.length + together.length > 0;
}

/** What bears on how wide a target is, what is to blame first. */
export function listCausesOf(
  markup: Markup,
  { before, effects, together }: CauseFact,
  fits = false,
): Stated[] {
  const most = Math.max(0, ...effects.map(({ px }) => px));
  const isEnough = (px: number) => before - px <= TOLERANCE;
  // What is enough alone comes first, then what does nearly as much as any.
  const weigh = (px: number) => {
    if (isEnough(px)) return 0;
    return px >= most * NEARLY ? 1 : 2;
  };
  const rank = (stated: Stated | null) => (stated ? getRank(stated, fits) : ABOUT.length);
  const found = effects
    .filter(({ px }) => isEnough(px) || px >= before * LEAST_PART)
    .map(({ px, ...span }) => ({ stated: findStated(markup, span), px }))
    .sort((a, b) => {
      const heavier = weigh(a.px) - weigh(b.px);
      return heavier || (weigh(a.px) < 2 ? rank(a.stated) - rank(b.stated) : b.px - a.px);
    })
    .map(({ stated }) => stated);
  const others = together.map((span) => findStated(markup, span));
  return mapPresent([...found, ...others.sort((a, b) => rank(a) - rank(b))], (one) => one);
}

function getRank(stated: Stated, fits: boolean): number {
  const at = ABOUT.findIndex(([properties]) => properties.test(stated.property));
  if (fits && ABOUT[at]?.[1] === 'place') return at - ABOUT.length;
  return at < 0 ? ABOUT.length : at;
}

/** What a declaration or an attribute is about. */
export function getReason({ property }: Pick<Stated, 'property'>): Reason {
  return ABOUT.find(([properties]) => properties.test(property))?.[1] ?? 'content';
}
