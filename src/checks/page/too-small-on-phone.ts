import { defineCheck, makeSeen, type Case, type Fact, type RenderOf } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { getValue, type Markup, type MarkupElement } from '../../core/markup/markup.js';
import { findDeclaration } from '../../core/markup/styles.js';
import { blameElement, getBlamed, locateAttribute } from '../../core/measure/blame.js';
import { listSized, type Sized } from '../../core/measure/sized.js';
import { formatPixels } from '../../core/measure/units.js';
import { outdoesTag, writeOnTag } from '../../core/mend/width.js';
import { tell } from '../../core/tell.js';
import { formatWidths, getWorstSeen } from '../../core/words/list.js';

interface Data {
  tag: string;
  /** How wide it is in the widest window, px; null where that is not known, or not one width. */
  wide: number | null;
}

type Measured = Record<'width' | 'slotWidth' | 'spare', number>;

type Needs = 'frames' | 'media' | 'slot';

/** Windows of this width and less are phones, px. */
const PHONE = 480;
const MOST_OF_SLOT = 0.7;
const HALF = 0.5;

export default defineCheck({
  id: 'too-small-on-phone',
  subject: 'page',
  level: 'advice',
  title: 'A player or frame is small on phones',
  decided: `A player, or a frame that takes up over half of the slot in the widest window, is under 70 % as wide as the slot in windows of ${PHONE} px and less.`,
  standard: null,
  needs: ['frames', 'media', 'slot'],
  markup: false,
  published: true,
  judge(c): Fact<Data, Measured>[] {
    const phones = c.renders.filter(({ viewport }) => viewport.width <= PHONE);
    return flatMap(phones, (render) =>
      listSized(render)
        .filter((one) => isSmall(one, render) && (one.player || isLarge(c, one, render)))
        .map((one): Fact<Data, Measured> => {
          const blame = blameElement(c.markup, one);
          const where = locateAttribute(c.markup, blame, 'width');
          const slotWidth = render.slot.box.width;
          const measured = { width: one.box.width, slotWidth, spare: slotWidth - one.box.width };
          const seen = makeSeen(render, measured);
          const wide = findWide(c, one);
          return tell.seen({ ...blame, where }, { tag: one.tag, wide }, seen, { group: '' });
        }),
    );
  },
  says({ tag }, { seen }) {
    const worst = getWorstSeen(seen, 'spare');
    const [width, slot] = [worst?.measured.width, worst?.measured.slotWidth].map((px = 0) =>
      formatPixels(px),
    );
    return {
      message: `The <${tag}> is ${width} wide where there are ${slot} (${formatWidths(seen)}).`,
      notice:
        'On a phone it is smaller than it could be: texts and controls in it are hard to hit.',
      cure: 'Let it take up the whole width on narrow screens: `width: 100%`.',
    };
  },
  mend({ wide }, { culprit }, markup) {
    const element = getBlamed(markup, { culprit });
    if (!element || wide === null) return null;
    const share = findShare(markup, element);
    // Where there is more room it stays as wide as it is.
    return share === null
      ? null
      : writeOnTag(element, { width: `max(${share}, min(100%, ${Math.round(wide)}px))` });
  },
  measures: ({ width, slotWidth }) =>
    `${formatPixels(width)} wide in a slot of ${formatPixels(slotWidth)}`,
  brief: ({ tag }) => `<${tag}> small on phones`,
  samples: [{ tag: 'video', wide: null }],
  examples: {
    faulty: [
      {
        name: 'a film of half the width',
        code: '<iframe title="A talk on bean seed" allowfullscreen src="https://player.loam.example/embed/talk" style="border: 0; width: 50%; aspect-ratio: 16 / 9"></iframe>',
      },
    ],
    sound: [
      {
        name: 'a film of the whole width',
        code: '<iframe title="A talk on bean seed" allowfullscreen src="https://player.loam.example/embed/talk" style="border: 0; width: 100%; aspect-ratio: 16 / 9"></iframe>',
      },
      {
        name: 'a frame that is small everywhere',
        code: '<iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 40%; height: 120px"></iframe>',
      },
    ],
  },
});

function isSmall({ box }: Sized, { slot }: RenderOf<Needs>): boolean {
  return box.width < slot.box.width * MOST_OF_SLOT;
}

/** Whether the same frame takes up over half of the slot in the widest window. */
function isLarge({ renders }: Case<Needs>, { from }: Sized, { at }: RenderOf<Needs>): boolean {
  const widest = findInWidest(
    renders.filter((one) => one.at.slot === at.slot),
    from,
  );
  return widest !== null && widest.one.box.width > widest.render.slot.box.width * HALF;
}

/** How wide it is in the widest window, px; null where it stands in several slots, and may be of several widths. */
function findWide({ renders }: Case<Needs>, { from }: Sized): number | null {
  if (new Set(renders.map(({ at }) => at.slot)).size > 1) return null;
  return findInWidest(renders, from)?.one.box.width ?? null;
}

function findInWidest(
  renders: readonly RenderOf<Needs>[],
  from: Sized['from'],
): { render: RenderOf<Needs>; one: Sized } | null {
  const [render] = [...renders].sort((a, b) => b.viewport.width - a.viewport.width);
  const one = render && listSized(render).find((other) => isSame(other.from, from));
  return one ? { render, one } : null;
}

/** The part of its room that it is stated to take; null where its width is stated otherwise. */
function findShare(markup: Markup, element: MarkupElement): string | null {
  // In a row its neighbours have a part in it.
  const display = element.parent && findDeclaration(markup, element.parent, ['display']);
  if (/flex|grid/.test(display?.value ?? '')) return null;
  if (findDeclaration(markup, element, /^(min|max)-(width|inline-size)$|^(inline-size|flex)/))
    return null;
  const declared = findDeclaration(markup, element, ['width']);
  if (outdoesTag(declared)) return null;
  const value = (declared?.value ?? getValue(element, 'width') ?? '').trim();
  return /^[\d.]+%$/.test(value) ? value : null;
}

function isSame(a: Sized['from'], b: Sized['from']): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}
