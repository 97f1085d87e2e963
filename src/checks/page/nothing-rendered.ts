import { defineCheck, makeSeen, type Fact, type RenderOf } from '../../core/check.js';
import type { ElementFact } from '../../core/evidence.js';
import { getTagSpan, type Markup } from '../../core/markup/markup.js';
import { atSnippet, getHead } from '../../core/measure/blame.js';
import { MEANT_TO_SHOW, UNSEEN } from '../../core/standards/elements.js';
import { isScript } from '../../core/markup/traits.js';
import { tell } from '../../core/tell.js';

interface Data {
  scripted: boolean;
}

export default defineCheck({
  id: 'nothing-rendered',
  subject: 'page',
  level: 'blocker',
  title: 'Nothing of the snippet shows',
  decided:
    'After settling no element of the snippet has a visible box and no text of it is seen, at any width, nor while it is scrolled to, within the first minute or further down; what stays wholly transparent is not seen, nor what is painted like what is behind it: clipped, masked, moved off the page, under something of its own. Not for a snippet that is made only of script, style and the like, or of sound; a concern where a live script has drawn nothing.',
  standard: null,
  needs: ['elements', 'slot', 'paint'],
  explains: [{ findings: ['text-invisible'], anywhere: true, fits: () => true }],
  lasts: true,
  markup: false,
  judge(c): Fact<Data>[] {
    const parts = c.markup.elements.filter(({ name }) => !UNSEEN.has(name));
    const heard =
      parts.some(({ name }) => name === 'audio') &&
      !parts.some(({ name }) => MEANT_TO_SHOW.has(name));
    const onlyCode = parts.length === 0 && !hasText(c.markup);
    const shows = c.renders.some(isPainted) || isUnknown(c.renders);
    const first = parts[0] ?? c.markup.elements[0];
    // Where not all was read, or the page had not loaded in time, it may show all the same.
    const whole = c.renders.filter(({ partial }) => !partial);
    if (
      onlyCode ||
      (heard && !parts.some(({ text }) => text.trim())) ||
      shows ||
      whole.length === 0
    )
      return [];
    const scripted = c.markup.elements.some(isScript);
    return [
      tell.seen(
        atSnippet('nothing', first ? getTagSpan(first) : getHead(c.markup)),
        { scripted },
        whole.map((one) => makeSeen(one, { elements: one.elements.length })),
        { level: scripted ? 'concern' : 'blocker' },
      ),
    ];
  },
  says({ scripted }) {
    return {
      message: scripted
        ? 'The script has drawn nothing: no part of the snippet shows.'
        : 'No part of the snippet shows.',
      notice: 'Visitors see an empty place.',
      cure: scripted
        ? 'See whether the script loads, finds its block, and needs an account or a domain to be let in.'
        : 'See what hides it: display, visibility, a size of 0, or no content.',
    };
  },
  samples: [{ scripted: false }, { scripted: true }],
  examples: {
    faulty: [
      { name: 'an empty block', code: '<div class="seed-box"></div>' },
      {
        name: 'transparent for good',
        code: '<div style="opacity: 0"><p>Beans</p></div>',
      },
      {
        name: 'hidden by its own style',
        code: '<style>.seed-box { display: none }</style><div class="seed-box">Beans</div>',
      },
      {
        name: 'clipped away',
        code: '<div style="clip-path: inset(100%)"><p>Beans</p></div>',
      },
    ],
    sound: [
      {
        name: 'sound alone',
        code: '<audio src="https://media.loam.example/talk.mp4"></audio>',
      },
      {
        name: 'a part that shows itself when it is scrolled to',
        code: '<div class="beds" style="opacity: 0; transition: opacity 0.2s; height: 40px">Beans</div><script>new IntersectionObserver(([entry]) => { entry.target.style.opacity = entry.isIntersecting ? 1 : 0 }).observe(document.querySelector(".beds"))</script>',
      },
      { name: 'a bare text', code: 'Sow in May.' },
      {
        name: 'only a script',
        code: '<script async src="https://tally.example/small.js"></script>',
      },
    ],
  },
});

/** Something of it was seen to be painted; later, and further down, where no picture was taken, it stands on the page. */
function isPainted(render: RenderOf<'elements' | 'slot' | 'paint'>): boolean {
  const { paint, at } = render;
  if (paint.blank !== null) return !paint.blank && hasBoxes(render);
  return at.after !== null && (render.slot.text || render.elements.some(isOnPage));
}

/** Nobody has looked at what is painted, and there is something that may be. What was looked at in some windows decides for all. */
function isUnknown(renders: readonly RenderOf<'elements' | 'slot' | 'paint'>[]): boolean {
  const looked = renders.filter((one) => one.paint.blank !== null && hasBoxes(one));
  return looked.length === 0 && renders.some(hasBoxes);
}

function isBox({ shown, box, tag }: ElementFact): boolean {
  return shown && !UNSEEN.has(tag) && box.width > 0 && box.height > 0;
}

function isOnPage(element: ElementFact): boolean {
  const { x, y, width, height } = element.box;
  return isBox(element) && x + width > 0 && y + height > 0;
}

function hasBoxes({ elements, slot }: RenderOf<'elements' | 'slot'>): boolean {
  return slot.text || elements.some(isBox);
}

/** Whether there is text outside of all elements. */
function hasText({ text, elements }: Markup): boolean {
  let rest = text;
  for (const { offset, endOffset, parent } of [...elements].reverse()) {
    if (parent === null) rest = rest.slice(0, offset) + rest.slice(endOffset);
  }
  return rest.replace(/<!--[\s\S]*?-->/g, '').trim() !== '';
}
