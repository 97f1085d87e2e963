import { atTag, getBlamed } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { isHidden } from '../../core/markup/hidden.js';
import { mapPresent } from '../../core/lists.js';
import {
  listAround,
  listInside,
  type Markup,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { describeElement, getMarkupControlName } from '../../core/markup/names.js';
import { isDecoration, isLinkOrButton, isPicture } from '../../core/standards/elements.js';
import { askOfControl, askFor } from '../../core/mend/attribute.js';
import { tell } from '../../core/tell.js';

interface Data {
  /** What it stands in alone; null where it says itself that it is a picture. */
  control: 'link' | 'button' | null;
}

export default defineCheck({
  id: 'vector-unnamed',
  subject: 'pictures',
  level: 'concern',
  title: 'A drawing that says something has no name',
  decided:
    'An inline svg has no title of its own, no label and no text in it, and says by role="img" that it is a picture, or is all that a link or a button without a name has in it. Not where it is hidden from assistive technology, or marked as decoration.',
  standard: 'WCAG 2.2, 1.1.1 Non-text Content; SVG Accessibility API Mappings 1.0, 8',
  needs: [],
  markup: true,
  judge({ markup }): Fact<Data>[] {
    return mapPresent(markup.elements, (element) => {
      if (element.name !== 'svg' || isSetAside(markup, element)) return null;
      if (getMarkupControlName(markup, element, HEARD)) return null;
      const control = findControl(markup, element);
      if (!control && !isPicture(describeElement(element))) return null;
      return tell.markup(atTag(element), { control });
    });
  },
  says: ({ control }) =>
    control
      ? {
          message: `The ${control} has only a drawing in it, and neither has a name.`,
          notice: `A screen reader says “${control}”, or reads out an address, and not where it leads.`,
          cure: `Say with \`aria-label\` on the ${control} where it leads or what it does, and hide the drawing with \`aria-hidden="true"\`.`,
        }
      : {
          message: 'A drawing says that it is a picture and has no name.',
          notice: 'People who cannot see it hear that there is a picture, and not of what.',
          cure: 'Add `aria-label` with what it shows; `aria-hidden="true"` if it is mere decoration.',
        },
  mend({ control }, { culprit }, markup) {
    if (!control)
      return askFor(culprit, 'aria-label', 'What does the drawing show?', {
        decoration: { name: 'aria-hidden', value: 'true' },
      });
    const svg = getBlamed(markup, { culprit });
    const named = svg && findAround(svg);
    return named ? askFor(atTag(named).culprit, 'aria-label', askOfControl(control)) : null;
  },
  samples: [{ control: 'link' }, { control: null }],
  examples: {
    faulty: [
      {
        name: 'alone in a button',
        code: '<button type="button"><svg viewBox="0 0 10 10" width="24" height="24"><path d="M1 1h8v8h-8z"/></svg></button>',
      },
      {
        name: 'a picture by its role',
        code: '<svg role="img" viewBox="0 0 10 10" width="40" height="40"><circle cx="5" cy="5" r="4"/></svg>',
      },
    ],
    sound: [
      {
        name: 'a title of its own',
        code: '<button type="button"><svg role="img" viewBox="0 0 10 10" width="24" height="24"><title>Look for seed</title><path d="M1 1h8v8h-8z"/></svg></button>',
      },
      {
        name: 'words beside it',
        code: '<a href="/desk"><svg viewBox="0 0 10 10" width="24" height="24"><path d="M1 1h8v8h-8z"/></svg> The members’ desk</a>',
      },
      {
        name: 'decoration',
        code: '<p><svg viewBox="0 0 10 10" width="24" height="24"><path d="M1 1h8v8h-8z"/></svg> Sow in May.</p>',
      },
    ],
  },
});

/** What is in it is heard. */
const HEARD = { byContent: true };

function isSetAside(markup: Markup, svg: MarkupElement): boolean {
  const inner = listAround(svg.parent).some(({ name }) => name === 'svg');
  return inner || isDecoration(describeElement(svg)) || isHidden(markup, svg);
}

/** The link or button that a drawing stands in. */
function findAround(svg: MarkupElement): MarkupElement | null {
  return listAround(svg.parent).find((one) => isLinkOrButton(describeElement(one))) ?? null;
}

/** The link or button that has nothing in it but drawings, none of which says anything. */
function findControl(markup: Markup, svg: MarkupElement): Data['control'] {
  const control = findAround(svg);
  if (!control || getMarkupControlName(markup, control, HEARD)) return null;
  const inside = listInside(control);
  // A picture without a text alternative is told of by itself.
  const others = inside.some((one) => /^(img|input|object)$/.test(one.name));
  const first = inside.find((one) => one.name === 'svg' && !isSetAside(markup, one));
  if (others || first !== svg || isHidden(markup, control)) return null;
  return control.name === 'a' ? 'link' : 'button';
}
