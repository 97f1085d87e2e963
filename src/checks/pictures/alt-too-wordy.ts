import { atTag } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { isHidden } from '../../core/markup/hidden.js';
import { getAttribute } from '../../core/markup/markup.js';
import { WITH_ALT } from '../../core/standards/elements.js';
import { tell } from '../../core/tell.js';
import { squeeze } from '../../core/words/squeeze.js';

interface Data {
  /** Characters. */
  length: number;
}

/** Characters of an alt that is heard to its end. */
const MOST = 150;

export default defineCheck({
  id: 'alt-too-wordy',
  subject: 'pictures',
  level: 'advice',
  title: 'A text alternative is too long',
  decided: 'An alt of a picture has more than 150 characters, runs of blanks counted as one.',
  standard: 'WCAG 2.2, 1.1.1 Non-text Content',
  needs: [],
  markup: true,
  judge: ({ markup }): Fact<Data>[] =>
    flatMap(
      markup.elements.filter(({ name }) => WITH_ALT.has(name)),
      (element) => {
        const alt = getAttribute(element, 'alt');
        const length = alt ? count(alt.value) : 0;
        if (!alt || length <= MOST || isHidden(markup, element)) return [];
        return [tell.markup(atTag(element, alt), { length })];
      },
    ),
  says: ({ length }) => ({
    message: `The text alternative has ${length} characters.`,
    notice: 'A screen reader reads it in one go: nobody can pause in it, or go back a sentence.',
    cure: `Say in up to ${MOST} characters what the picture is there for; put the rest beside it, for all to read.`,
  }),
  brief: ({ length }) => `an alt of ${length} characters`,
  samples: [{ length: 212 }],
  examples: {
    faulty: [
      {
        name: 'a whole paragraph',
        code: '<img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Runner beans drying on a wooden rack under the roof of the glasshouse, sorted by the year of their harvest, each sort in a box of its own with a label that says where it was grown">',
      },
    ],
    sound: [
      {
        name: 'a sentence',
        code: '<img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Runner beans drying on a wooden rack under the roof of the glasshouse">',
      },
    ],
  },
});

function count(text: string): number {
  return [...squeeze(text)].length;
}
