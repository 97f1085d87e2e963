import { atPart } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import type { Level } from '../../core/house/house.js';
import {
  isKnownElement,
  isKnownSomewhere,
  listAttributes,
} from '../../core/standards/attributes.js';
import type { MarkupAttribute, MarkupElement } from '../../core/markup/markup.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';
import { findSlip } from '../../core/words/slip.js';

interface Data {
  written: string;
  meant: string;
  element: string;
  split: boolean;
}

/** Names that templates and data use as they like. */
const FREE =
  /^(data-|:|@|#|v-|x-|ng-|hx-|\*|\[|\()|[:@.{}<>"'`=]|^(webkit|moz|ms|o|khtml)-?allowfullscreen$/;
/** Slips that are told by no count of letters: short ones, and the spellings of component code. */
const SLIPS: Record<string, string> = {
  mute: 'muted',
  clas: 'class',
  clss: 'class',
  styl: 'style',
  hre: 'href',
  classname: 'class',
  htmlfor: 'for',
  defaultvalue: 'value',
  defaultchecked: 'checked',
  ondoubleclick: 'ondblclick',
  xlinkhref: 'xlink:href',
};
/** What decides whether and how something is loaded, shown or played. */
const DECIDES = new Set(
  'src href srcset srcdoc data action formaction type async defer autoplay muted playsinline controls loop poster allow allowfullscreen sandbox'.split(
    ' ',
  ),
);

export default defineCheck({
  id: 'attribute-misspelt',
  subject: 'paste',
  level: 'concern',
  title: 'An attribute’s name is misspelt',
  decided:
    'A name that is no attribute of HTML, ARIA or SVG and one small edit away from one that this element has (two edits from eight letters on; under five letters only a swap), or a known slip such as mute or className, or an attribute written in two words. A blocker where the attribute meant decides what is loaded or played.',
  standard: 'HTML Living Standard, 13.1.2.3 Attributes',
  needs: [],
  markup: true,
  judge(c): Fact<Data>[] {
    return flatMap(
      c.markup.elements.filter(({ name }) => isKnownElement(name)),
      (element) => judgeElement(element),
    );
  },
  says({ written, meant, element, split }) {
    return {
      message: split
        ? `“${written}” on <${element}> is two attributes that do nothing; did you mean ${meant}?`
        : `<${element}> has no attribute ${written}; did you mean ${meant}?`,
      notice: 'The attribute does nothing, and nothing says so.',
      cure: `Write \`${meant}\`.`,
    };
  },
  mend({ written, meant, split }, { where }, markup) {
    const end = split ? where.endOffset : where.offset + written.length;
    const now = markup.text.slice(where.offset, end).toLowerCase();
    return split || now === written
      ? [{ do: 'replace-text', span: { offset: where.offset, endOffset: end }, text: meant }]
      : null;
  },
  brief: ({ written, element }) => `<${element}> has no attribute ${written}`,
  samples: [
    { written: 'scr', meant: 'src', element: 'img', split: false },
    { written: 'allow fullscreen', meant: 'allowfullscreen', element: 'iframe', split: true },
  ],
  examples: {
    faulty: [
      { name: 'letters swapped', code: '<p tilte="Sowing calendar">Sow in May.</p>' },
      { name: 'the spelling of component code', code: '<p className="beds">Sow in May.</p>' },
      {
        name: 'an attribute in two words',
        code: '<video src="https://media.loam.example/rain.mp4" play sinline muted controls poster="https://static.rootcellar.example/talk.png" style="width: 100%; aspect-ratio: 16 / 9"><track srclang="en" src="data:text/vtt,WEBVTT"></video>',
      },
    ],
    sound: [
      {
        name: 'data, and an attribute of a custom element',
        code: '<p data-tilte="x">Sow.</p><seed-box tilte="x">Beans</seed-box>',
      },
      {
        name: 'an attribute of tables is spelt right',
        code: '<table><tr><td colspan="2" headers="">Sow in May.</td></tr></table>',
      },
    ],
  },
});

function judgeElement(element: MarkupElement): Fact<Data>[] {
  const known = listAttributes(element.name);
  const unknown = (attribute: MarkupAttribute | undefined) =>
    attribute !== undefined &&
    !isKnownSomewhere(attribute.name.toLowerCase()) &&
    !FREE.test(attribute.name);
  const facts: Fact<Data>[] = [];
  for (let i = 0; i < element.attributes.length; i++) {
    const attribute = element.attributes[i]!;
    const next = element.attributes[i + 1];
    const joined = next && attribute.value === '' ? attribute.name + next.name : '';
    if (joined && known.includes(joined) && (unknown(attribute) || unknown(next))) {
      const written = `${attribute.name} ${next!.name}`;
      facts.push(
        toFact(
          element,
          { offset: attribute.offset, endOffset: next!.endOffset },
          written,
          joined,
          true,
        ),
      );
      i++;
      continue;
    }
    const meant = unknown(attribute) ? findMeant(attribute.name, known) : null;
    if (meant) facts.push(toFact(element, attribute, attribute.name, meant, false));
  }
  return facts;
}

function toFact(
  element: MarkupElement,
  span: Span,
  written: string,
  meant: string,
  split: boolean,
): Fact<Data> {
  const decides = DECIDES.has(meant) || meant.startsWith('on');
  const level: Level = decides ? 'blocker' : 'concern';
  return tell.markup(
    atPart(element, written, span),
    { written, meant, element: element.name, split },
    { level },
  );
}

/** The nearest attribute within the edits allowed for a name of this length. */
function findMeant(name: string, known: readonly string[]): string | null {
  const bare = name.replace(/[-_]/g, '');
  const same = known.find((one) => one.replace(/-/g, '') === bare);
  if (same) return same;
  const slip = Object.hasOwn(SLIPS, name) ? SLIPS[name]! : null;
  if (slip !== null && known.includes(slip)) return slip;
  return findSlip(name, known);
}
