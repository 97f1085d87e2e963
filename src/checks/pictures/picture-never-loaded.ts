import { defineCheck, makeSeen, type Fact, type MarkupFact } from '../../core/check.js';
import type { PictureFact, SlotFact } from '../../core/evidence.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import { isHidden } from '../../core/markup/hidden.js';
import {
  getValue,
  type Markup,
  type MarkupAttribute,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { hasHandler, isScript } from '../../core/markup/traits.js';
import { atPart, getSpan } from '../../core/measure/blame.js';
import { parseAddress } from '../../core/measure/site.js';
import type { Intent } from '../../core/mend/intent.js';
import { tell } from '../../core/tell.js';

interface Data {
  /** The attribute that its true address waits in, and that address as it is written. */
  attribute: string;
  address: string;
  /** The attribute that it belongs into. */
  into: 'src' | 'srcset';
}

type Measured = { asked: string; happened: string };

/** A picture, with what it waits for. */
interface Waiting {
  element: MarkupElement;
  attribute: MarkupAttribute;
}

const NAMED = /^data-(.*-)?(src|srcset|original|lazy|image|img|url|file)(-.*)?$/;
const FILE = /^(https?:)?\/\/|^[\w./-]+\.(png|jpe?g|gif|webp|avif|svg)\b/i;
/** For a file of fewer px than this share of those that it shows at another was to come. */
const LEAST = 0.25;
const TINY = 2;

export default defineCheck({
  id: 'picture-never-loaded',
  subject: 'pictures',
  level: 'concern',
  title: 'A picture’s place-holder stays',
  decided:
    'The true address of an img waits in a data attribute, what it shows is nothing, a stand-in in the address itself, or a file of a few px, and no code has taken the address by the end of the first minute. Not what stands beside its slot, such as the later pictures of a row. From the markup: where nothing in the snippet runs.',
  standard: null,
  needs: ['pictures', 'slot'],
  markup: true,
  lasts: true,
  explains: [{ findings: ['picture-blurry', 'picture-missing', 'placeholder-left-in'] }],
  judge: (c): Fact<Data, Measured>[] =>
    flatMap(listWaiting(c.markup), (waiting) =>
      flatMap(c.renders, (render) =>
        render.pictures
          .filter((one) => isOf(one, waiting) && isMet(one, render.slot) && isStandIn(one))
          .filter((one) => !hasTaken(one, waiting.attribute, c.house.origin))
          .map(({ address }) => {
            const happened = address ? shorten(address) : 'nothing';
            const seen = makeSeen(render, { asked: waiting.attribute.value, happened });
            return tell.seen(blameWaiting(waiting), getData(waiting), seen);
          }),
      ),
    ),
  unrendered: ({ markup }) =>
    markup.elements.some((one) => isScript(one) || hasHandler(one))
      ? []
      : mapPresent(listWaiting(markup), (waiting): MarkupFact<Data> | null => {
          const src = (getValue(waiting.element, 'src') ?? '').trim();
          const isEmpty = src === '' || /^data:/i.test(src);
          if (!isEmpty || isHidden(markup, waiting.element)) return null;
          return tell.markup(blameWaiting(waiting), getData(waiting));
        }),
  says: ({ attribute, address }) => ({
    message: `The picture waits in \`${attribute}\` (${address}), and nothing puts it where browsers look for it.`,
    notice: 'Visitors see a gap, or a smear, in the place of the picture.',
    cure: 'Write the address into `src`, with `loading="lazy"` where it may wait; or paste the script that belongs to it.',
  }),
  mend: ({ address, into }, { culprit }): Intent[] | null =>
    culprit.at === 'element'
      ? [{ do: 'set-attribute', element: culprit.offset, name: into, value: address }]
      : null,
  measures: ({ happened }) => `shown instead: ${happened}`,
  samples: [{ attribute: 'data-src', address: '/pea.png', into: 'src' }],
  examples: {
    faulty: [
      {
        name: 'its script was not pasted',
        code: '<img data-src="https://static.rootcellar.example/beans.png" src="data:image/gif;base64,R0lGODlhAQABAIAAAAAAAP///ywAAAAAAQABAAACAUwAOw==" width="160" height="120" alt="Runner beans drying on a rack">',
      },
      {
        name: 'nothing in its src',
        code: '<p>Sow in May.</p><img class="lazy" data-original="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Runner beans drying on a rack">',
      },
    ],
    sound: [
      {
        name: 'a script takes it',
        code: '<img data-src="https://static.rootcellar.example/beans.png" src="data:image/gif;base64,R0lGODlhAQABAIAAAAAAAP///ywAAAAAAQABAAACAUwAOw==" width="160" height="120" alt="Runner beans drying on a rack"><script>document.querySelectorAll("[data-src]").forEach((one) => (one.src = one.dataset.src))</script>',
      },
      {
        name: 'taken when it is scrolled to',
        code: '<div style="height: 1500px">Sow in May.</div><img data-src="https://static.rootcellar.example/beans.png" src="data:image/gif;base64,R0lGODlhAQABAIAAAAAAAP///ywAAAAAAQABAAACAUwAOw==" width="160" height="120" alt="Runner beans drying on a rack"><script>new IntersectionObserver((all) => all.forEach((one) => { if (one.isIntersecting) one.target.src = one.target.dataset.src })).observe(document.querySelector("[data-src]"))</script>',
      },
      {
        name: 'a larger one for those who click',
        code: '<img data-zoom-src="https://static.rootcellar.example/talk.png" src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Runner beans drying on a rack">',
      },
    ],
  },
});

function blameWaiting({ element, attribute }: Waiting) {
  return atPart(element, attribute.name, getSpan(attribute));
}

function getData({ attribute: { name, value } }: Waiting): Data {
  return { attribute: name, address: value, into: /srcset/.test(name) ? 'srcset' : 'src' };
}

/** The pictures of the source with an address that waits; of several the plainest. */
function listWaiting(markup: Markup): Waiting[] {
  return mapPresent(markup.elements, (element) => {
    if (element.name !== 'img') return null;
    const all = element.attributes.filter(
      ({ name, value }) => NAMED.test(name) && FILE.test(value.trim()),
    );
    const [attribute] = all.sort((a, b) => a.name.length - b.name.length);
    return attribute ? { element, attribute } : null;
  });
}

/** Not what a visitor has to bring in from the side, as the later pictures of a row. */
function isMet({ exposed, box }: PictureFact, slot: SlotFact): boolean {
  const middle = box.x + box.width / 2;
  return exposed && middle >= slot.box.x && middle <= slot.box.x + slot.box.width;
}

function isOf({ from }: PictureFact, { element }: Waiting): boolean {
  return 'offset' in from && from.offset === element.offset;
}

/** What it shows stands for another. */
function isStandIn({ address, loaded, pixels, drawn }: PictureFact): boolean {
  if (!loaded || address === '' || /^data:/i.test(address)) return true;
  if (!pixels || !drawn) return false;
  const isTiny = Math.min(pixels.width, pixels.height) <= TINY;
  return isTiny || pixels.width < LEAST * drawn.width;
}

function hasTaken({ address }: PictureFact, { value }: MarkupAttribute, origin: string): boolean {
  const all = value.split(',').map((one) => one.trim().split(/\s+/)[0]!);
  return all.some((one) => parseAddress(one, origin)?.href === address);
}

function shorten(address: string): string {
  return /^data:/i.test(address) ? 'a stand-in in the address itself' : address;
}
