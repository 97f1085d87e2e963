import { defineCheck, type Fact } from '../../core/check.js';
import {
  getAttribute,
  getValue,
  type Markup,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { isHidden } from '../../core/markup/hidden.js';
import { isScript } from '../../core/markup/traits.js';

interface Data {
  written: string;
}

export default defineCheck({
  id: 'jump-to-top-link',
  subject: 'paste',
  level: 'concern',
  title: 'A link leads nowhere, and jumps to the top',
  decided:
    'The address of a link is `#` or empty. Not where it calls code that keeps it from jumping, as far as the markup shows; where a script may do so it is told as not confirmed.',
  standard: 'HTML Living Standard, 7.4.6.4 Scrolling to a fragment',
  needs: [],
  markup: true,
  judge: ({ markup, renders }) => {
    const sure = renders.length > 0 && !markup.elements.some(isScript);
    return markup.elements.flatMap((element) => judgeLink(markup, element, sure));
  },
  says: ({ written }) => ({
    message: `This link has no address of its own (\`${written}\`).`,
    notice: 'Who follows it is thrown to the top of the page, or loads the page anew.',
    cure: 'Give it the address that it is to lead to; where it only does something, make it a button.',
  }),
  mend: () => [{ do: 'ask', question: 'Where is the link to lead?' }],
  brief: () => 'a link that jumps to the top',
  samples: [{ written: 'href="#"' }],
  examples: {
    faulty: [
      { name: 'an address still to come', code: '<p><a href="#">Seed list</a></p>' },
      { name: 'an empty address', code: '<p><a href="">Seed list</a></p>' },
    ],
    sound: [
      { name: 'to a place on the page', code: '<p id="list"><a href="#list">Seed list</a></p>' },
      { name: 'no link at all', code: '<p><a>Seed list</a></p>' },
      {
        name: 'one that is kept from jumping',
        code: '<p><a href="#" onclick="return false">Seed list</a></p>',
      },
    ],
  },
});

const KEPT = /return\s+false|preventDefault\s*\(/;

function judgeLink(markup: Markup, element: MarkupElement, sure: boolean): Fact<Data>[] {
  const href = element.name === 'a' ? getAttribute(element, 'href') : null;
  if (!href || !/^#?$/.test(href.value.trim()) || isHidden(markup, element)) return [];
  if (KEPT.test(getValue(element, 'onclick') ?? '')) return [];
  const { offset, endOffset } = href;
  return [
    {
      where: { offset, endOffset },
      culprit: { at: 'element', offset: element.offset, part: 'href' },
      confirmed: sure,
      data: { written: markup.text.slice(offset, endOffset) },
      seen: [],
    },
  ];
}
