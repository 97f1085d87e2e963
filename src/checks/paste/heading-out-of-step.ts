import { atTag } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { isHidden } from '../../core/markup/hidden.js';
import { getValue, type MarkupElement } from '../../core/markup/markup.js';
import { tell } from '../../core/tell.js';

interface Data {
  level: number;
  /** The level of the heading before; null for the first one. */
  before: number | null;
  /** The deepest level that fits here. */
  fits: number;
}

export default defineCheck({
  id: 'heading-out-of-step',
  subject: 'paste',
  level: 'advice',
  title: 'A heading leaves a level out',
  decided:
    'The first heading is deeper than the slot’s `headingLevel`, or a later one is more than one level deeper than the one before it.',
  standard: 'WCAG 2.2, 1.3.1 Info and Relationships',
  needs: [],
  markup: true,
  judge(c): Fact<Data>[] {
    const headings = flatMap(c.markup.elements, (element) => {
      const level = getLevel(element);
      return level === null || isHidden(c.markup, element) ? [] : [{ element, level }];
    });
    // In several slots it has to fit the one whose headings begin deepest.
    const first = Math.max(...c.house.slots.map(({ headingLevel }) => headingLevel));
    return flatMap(headings, ({ element, level }, i): Fact<Data>[] => {
      const before = headings[i - 1]?.level ?? null;
      const fits = before === null ? first : before + 1;
      if (level <= fits) return [];
      return [tell.markup(atTag(element), { level, before, fits })];
    });
  },
  says: ({ level, before, fits }) => ({
    message:
      before === null
        ? `The first heading is of level ${level}; the slot’s headings begin with level ${fits}.`
        : `A heading of level ${level} follows one of level ${before}.`,
    notice: 'Who goes through the page by its headings looks for a part that is not there.',
    cure: `Make it an <h${fits}>, and let styles say how large it is.`,
  }),
  samples: [
    { level: 4, before: null, fits: 2 },
    { level: 4, before: 2, fits: 3 },
  ],
  examples: {
    faulty: [
      { name: 'the first too deep', code: '<h4>Sowing</h4><p>Sow in May.</p>' },
      { name: 'a level left out', code: '<h2>Beans</h2><h4>Sowing</h4><p>Sow in May.</p>' },
    ],
    sound: [
      {
        name: 'in step',
        code: '<h2>Beans</h2><h3>Sowing</h3><h3>Water</h3><h2>Peas</h2><p>Sow.</p>',
      },
    ],
  },
});

function getLevel(element: MarkupElement): number | null {
  const role = getValue(element, 'role')?.trim().toLowerCase();
  if (role === 'heading') return Number(getValue(element, 'aria-level') ?? 2) || 2;
  if (role) return null;
  const level = /^h([1-6])$/.exec(element.name)?.[1];
  return level === undefined ? null : Number(level);
}
