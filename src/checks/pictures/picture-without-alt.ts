import { defineCheck, makeSeen, type Case, type Fact, type MarkupFact } from '../../core/check.js';
import type { PictureFact } from '../../core/evidence.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import { atTag, blameElement, getBlamed } from '../../core/measure/blame.js';
import {
  getAttribute,
  getText,
  getValue,
  listAround,
  listInside,
  readMarkup,
  type Markup,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { describeElement, getMarkupName } from '../../core/markup/names.js';
import {
  isDecoration,
  isLinkOrButton,
  isPicture,
  isWhole,
  WITH_ALT,
} from '../../core/standards/elements.js';
import { askOfControl, askFor } from '../../core/mend/attribute.js';
import { tell } from '../../core/tell.js';
import { capitalize, nameElement } from '../../core/words/list.js';
import { isHidden } from '../../core/markup/hidden.js';

interface Data {
  tag: string;
  /** It stands in a document that the markup writes into a frame. */
  inFrame: boolean;
  /** What it stands in and names: then it is no decoration. */
  control: 'link' | 'button' | null;
}

type Measured = { name: string | null; width: number; height: number };

/** Pictures of this size and less are counters, not content. */
const COUNTER = 2;

export default defineCheck({
  id: 'picture-without-alt',
  subject: 'pictures',
  level: 'blocker',
  title: 'A picture has no text alternative',
  decided:
    'An img, an image button, an area with a link, a file as an object or in a drawing, or an element with role="img" (of an svg vector-unnamed tells) gives no name by the accessible-name computation, and is neither hidden from assistive technology nor marked as decoration nor a counter of 2 px. In documents that are written into frames (srcdoc) too.',
  standard: 'WCAG 2.2, 1.1.1 Non-text Content',
  needs: ['pictures'],
  markup: true,
  judge: (c) => [...judgeRenders(c), ...judgeWritten(c.markup)],
  unrendered: ({ markup }) => [...tellUnnamed(markup), ...judgeWritten(markup)],
  says({ tag, control, inFrame }, fact) {
    const where = inFrame ? ' in the frame’s document' : '';
    const what = capitalize(nameElement(tag, fact.culprit)) + where;
    if (control && tag === 'img') {
      return {
        message: `${what} in a ${control} has no text alternative, and the ${control} no other name.`,
        notice: `A screen reader says “${control}”, or reads out an address, and not where it leads.`,
        cure: `Say in \`alt\` where the ${control} leads or what it does, such as \`alt="To the members’ desk"\`.`,
      };
    }
    return {
      message: `${what} has no text alternative.`,
      notice: 'People who cannot see it hear a file name, or nothing at all.',
      cure:
        tag === 'img'
          ? 'Add `alt` with what the picture says; `alt=""` if it is mere decoration.'
          : `Add \`${tag === 'area' || tag === 'input' ? 'alt' : 'aria-label'}\` with what it shows or does.`,
    };
  },
  mend({ tag, control }, { culprit }) {
    const attribute = WITH_ALT.has(tag) ? 'alt' : 'aria-label';
    if (control) return askFor(culprit, attribute, askOfControl(control));
    const decoration = tag === 'img' ? { name: 'alt', value: '' } : null;
    return askFor(culprit, attribute, 'What does the picture show?', { decoration });
  },
  measures: ({ width, height }) => `${Math.round(width)} × ${Math.round(height)} px large`,
  samples: [
    { tag: 'img', control: null, inFrame: false },
    { tag: 'img', control: 'link', inFrame: false },
    { tag: 'img', control: null, inFrame: true },
    { tag: 'svg', control: null, inFrame: false },
  ],
  examples: {
    faulty: [
      {
        name: 'no alt',
        code: '<img src="https://static.rootcellar.example/beans.png" width="160" height="120">',
      },
      {
        name: 'a file in a drawing',
        code: '<svg width="160" height="120" viewBox="0 0 160 120"><image href="https://static.rootcellar.example/beans.png" width="160" height="120"/></svg>',
      },
      {
        name: 'in the document of a frame',
        code: '<iframe title="Beans" style="border: 0; width: 100%; height: 160px" srcdoc="<img src=\'https://static.rootcellar.example/beans.png\' width=\'160\' height=\'120\'>"></iframe>',
      },
      {
        name: 'role img without a name',
        code: '<div role="img" style="width: 40px; height: 40px; background: #3d5a73"></div>',
      },
    ],
    sound: [
      {
        name: 'alt with words',
        code: '<img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Runner beans drying on a rack">',
      },
      {
        name: 'decoration',
        code: '<img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="">',
      },
      {
        name: 'part of a drawing that has a name',
        code: '<svg width="160" height="120" viewBox="0 0 160 120" role="img" aria-label="Runner beans on a rack"><image href="https://static.rootcellar.example/beans.png" width="160" height="120"/></svg>',
      },
      {
        name: 'named by text on the page',
        code: '<p id="beans">Runner beans</p><img src="https://static.rootcellar.example/beans.png" width="160" height="120" aria-labelledby="beans">',
      },
      {
        name: 'a label around an image button',
        code: '<label>Look for seed <input type="image" src="https://static.rootcellar.example/beans.png" width="40"></label>',
      },
      {
        name: 'a counter',
        code: '<img src="https://static.rootcellar.example/beans.png" width="1" height="1">',
      },
    ],
  },
});

function judgeRenders(c: Case<'pictures'>): Fact<Data, Measured>[] {
  // A picture that is hidden at one width and shown at another is seen: one sighting is enough.
  return flatMap(c.renders, (render) =>
    mapPresent(render.pictures.filter(isUnnamed), (picture) => {
      const blame = blameElement(c.markup, picture);
      // Of drawings in the source vector-unnamed tells.
      if (picture.tag === 'svg' && blame.culprit.at === 'element') return null;
      const control = findControl(c.markup, getBlamed(c.markup, blame));
      // A link with only a drawing in it is vector-unnamed's too.
      if (picture.tag === 'image' && control) return null;
      const measured = { name: picture.name, width: picture.box.width, height: picture.box.height };
      const seen = makeSeen(render, measured);
      return tell.seen(blame, { tag: picture.tag, control, inFrame: false }, seen);
    }),
  );
}

function isUnnamed({ tag, name, ignored, loaded, exposed, box }: PictureFact): boolean {
  if (name || ignored) return false;
  if (name === '' && tag === 'img') return false;
  // The browser gives areas no box of their own.
  if (tag === 'area') return true;
  // A picture that has not come yet has no size to tell by.
  if (exposed && !loaded && box.width + box.height === 0) return true;
  return exposed && (box.width > COUNTER || box.height > COUNTER);
}

function tellUnnamed(markup: Markup): MarkupFact<Data>[] {
  return markup.elements
    .filter(
      (element) =>
        element.name !== 'svg' &&
        isPicture(describeElement(element)) &&
        !isNamed(markup, element) &&
        !isSetAside(markup, element),
    )
    .map((element): MarkupFact<Data> =>
      tell.markup(atTag(element), {
        tag: element.name,
        control: findControl(markup, element),
        inFrame: false,
      }),
    )
    .filter(({ data }) => data.tag !== 'image' || !data.control);
}

/** Documents that are written into frames (HTML, 4.8.5: srcdoc) are the snippet's own. */
function judgeWritten(markup: Markup): MarkupFact<Data>[] {
  return flatMap(markup.elements, (frame) => {
    const written = frame.name === 'iframe' ? getAttribute(frame, 'srcdoc') : null;
    if (!written || isHidden(markup, frame)) return [];
    const { offset, endOffset } = written;
    return tellUnnamed(readMarkup(written.value)).map((fact): MarkupFact<Data> => ({
      ...fact,
      where: { offset, endOffset },
      culprit: { at: 'element', offset: frame.offset, part: 'srcdoc' },
      data: { ...fact.data, inFrame: true },
    }));
  });
}

/** The link or button around it that nothing else names. */
function findControl(markup: Markup, element: MarkupElement | null): Data['control'] {
  for (const at of listAround(element?.parent ?? null)) {
    if (!isLinkOrButton(describeElement(at))) continue;
    const named = [at, ...listInside(at)].some((one) => getMarkupName(markup, one));
    if (named || getText(at)) return null;
    return at.name === 'a' ? 'link' : 'button';
  }
  return null;
}

/** An empty alt marks an img as decoration; an image button and an area have no such way out. */
function isNamed(markup: Markup, element: MarkupElement): boolean {
  const name = getMarkupName(markup, element);
  return Boolean(name) || (name === '' && element.name === 'img');
}

/** Hidden, decoration, or a counter, as far as the markup tells. */
function isSetAside(markup: Markup, element: MarkupElement): boolean {
  if (isDecoration(describeElement(element))) return true;
  if (element.name === 'image' && isOfDrawing(markup, element)) return true;
  const sizes = ['width', 'height'].map((name) => parseFloat(getValue(element, name) ?? ''));
  if (sizes.every((size) => size <= COUNTER)) return true;
  return isHidden(markup, element);
}

/** What is drawn only where something refers to it (SVG 2, 5.1). */
const UNDRAWN = /^(defs|symbol|pattern|mask|clippath|marker|filter)$/i;

/** Part of a drawing that is a picture as a whole, or not drawn by itself. */
function isOfDrawing(markup: Markup, element: MarkupElement): boolean {
  return listAround(element.parent).some(
    (at) => UNDRAWN.test(at.name) || isWhole(describeElement(at), () => getMarkupName(markup, at)),
  );
}
