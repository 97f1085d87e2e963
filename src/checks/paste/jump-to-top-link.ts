import { atPart } from '../../core/measure/blame.js';
import { defineCheck, makeSeen, type Fact, type RenderOf } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import {
  getAttribute,
  getValue,
  type Markup,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { isHidden } from '../../core/markup/hidden.js';
import { getMarkupName } from '../../core/markup/names.js';
import { hasHandler, isScript } from '../../core/markup/traits.js';
import { askFor } from '../../core/mend/attribute.js';
import { tell } from '../../core/tell.js';

interface Data {
  written: string;
}

export default defineCheck({
  id: 'jump-to-top-link',
  subject: 'paste',
  level: 'concern',
  title: 'A link leads nowhere, and jumps to the top',
  decided:
    'The address of a link is `#` or empty. Not where its words say that it leads to the top, nor where code keeps it from jumping: the snippet’s own is asked by a click.',
  standard: 'HTML Living Standard, 7.4.6.4 Scrolling to a fragment',
  needs: ['handling'],
  markup: true,
  judge: ({ markup, renders }) => {
    const still =
      renders.length > 0 && !markup.elements.some((one) => isScript(one) || hasHandler(one));
    return flatMap(markup.elements, (element) => judgeLink(markup, element, renders, still));
  },
  says: ({ written }) => ({
    message: `This link has no address of its own (\`${written}\`).`,
    notice: 'Who follows it is thrown to the top of the page, or loads the page anew.',
    cure: 'Give it the address that it is to lead to; where it only does something, make it a button.',
  }),
  mend: (_data, { culprit }) =>
    askFor(culprit, 'href', 'Where is the link to lead?', { takes: 'address' }),
  brief: () => 'a link that jumps to the top',
  samples: [{ written: 'href="#"' }],
  examples: {
    faulty: [
      { name: 'an address still to come', code: '<p><a href="#">Seed list</a></p>' },
      {
        name: 'with a script that lets it jump',
        code: '<p><a href="#" id="list">Seed list</a></p><script>document.querySelector("#list").addEventListener("click", () => undefined)</script>',
      },
      { name: 'an empty address', code: '<p><a href="">Seed list</a></p>' },
    ],
    sound: [
      { name: 'to a place on the page', code: '<p id="list"><a href="#list">Seed list</a></p>' },
      { name: 'to the top, as it says', code: '<p><a href="#">Back to top</a></p>' },
      { name: 'no link at all', code: '<p><a>Seed list</a></p>' },
      {
        name: 'one that a script keeps from jumping',
        code: '<p><a href="#" id="list">Seed list</a></p><script>document.querySelector("#list").addEventListener("click", (event) => event.preventDefault())</script>',
      },
      {
        name: 'one that is kept from jumping',
        code: '<p><a href="#" onclick="return false">Seed list</a></p>',
      },
    ],
  },
});

/** Words, in some languages, and signs by which a link says that it leads to the top. */
const TOP =
  /\b((back|go|jump|up|scroll)( up)?( to)?( the)? top|to (the )?top|top of( the)? page|page top)\b|^(the )?top$|nach oben|seitenanfang|haut de (la )?page|en haut|arriba|inicio de (la )?página|torna su|inizio pagina|naar boven|ao topo|till toppen|til toppen|do góry|наверх|[↑⇧⬆▲⌃]|^\^$/i;

function saysTop(markup: Markup, link: MarkupElement): boolean {
  const inside = markup.text.slice(link.tagEnd, link.endOffset);
  const words = inside
    .replace(/<[^>]*>/g, '')
    .replace(/\s+/g, ' ')
    .trim();
  return TOP.test(words) || TOP.test(getMarkupName(markup, link) ?? '');
}

const KEPT = /return\s+false|preventDefault\s*\(/;

function judgeLink(
  markup: Markup,
  element: MarkupElement,
  renders: readonly RenderOf<'handling'>[],
  still: boolean,
): Fact<Data>[] {
  const href = element.name === 'a' ? getAttribute(element, 'href') : null;
  if (!href || !/^#?$/.test(href.value.trim()) || isHidden(markup, element)) return [];
  if (href.value.trim() === '#' && saysTop(markup, element)) return [];
  const clicks = flatMap(renders, (render) =>
    render.handling.links
      .filter(({ from }) => 'offset' in from && from.offset === element.offset)
      .map(({ jumps }) => ({ render, jumps })),
  );
  const jumping = clicks.filter(({ jumps }) => jumps);
  if (clicks.length > 0 && jumping.length === 0) return [];
  if (clicks.length === 0 && KEPT.test(getValue(element, 'onclick') ?? '')) return [];
  const { offset, endOffset } = href;
  return [
    tell.seen(
      atPart(element, 'href', { offset, endOffset }),
      { written: markup.text.slice(offset, endOffset) },
      jumping.map(({ render }) => makeSeen(render, { clicked: true })),
      { doubtful: !still && jumping.length === 0 },
    ),
  ];
}
