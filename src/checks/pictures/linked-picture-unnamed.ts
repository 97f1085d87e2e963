import { atTag } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { isHidden } from '../../core/markup/hidden.js';
import { getAttribute, getValue, listInside } from '../../core/markup/markup.js';
import { describeElement, getMarkupControlName } from '../../core/markup/names.js';
import { isLinkOrButton } from '../../core/standards/elements.js';
import { askOfControl, askFor } from '../../core/mend/attribute.js';
import { tell } from '../../core/tell.js';

interface Data {
  control: string;
}

export default defineCheck({
  id: 'linked-picture-unnamed',
  subject: 'pictures',
  level: 'blocker',
  title: 'A link or button has only a picture in it, and that has an empty alt',
  decided:
    'A link or button has no text, no label and no title, and all its pictures have alt="". Where alt is missing altogether, picture-without-alt tells it.',
  standard: 'WCAG 2.2, 2.4.4 Link Purpose and 4.1.2 Name, Role, Value',
  needs: [],
  markup: true,
  judge(c): Fact<Data>[] {
    return flatMap(
      c.markup.elements.filter((element) => isLinkOrButton(describeElement(element))),
      (control): Fact<Data>[] => {
        const inside = listInside(control);
        const pictures = inside.filter(({ name }) => name === 'img');
        const empty = pictures.find((picture) => getValue(picture, 'alt')?.trim() === '');
        const alt = empty && getAttribute(empty, 'alt');
        if (
          !alt ||
          isHidden(c.markup, control) ||
          getMarkupControlName(c.markup, control, { byContent: true })
        )
          return [];
        const data = { control: control.name === 'a' ? 'link' : 'button' };
        return [tell.markup(atTag(empty, alt), data)];
      },
    );
  },
  says({ control }) {
    return {
      message: `The ${control} has only a picture in it, and its alt is empty: the ${control} has no name.`,
      notice: `A screen reader says “${control}”, or reads out an address, and not where it leads.`,
      cure: `Say in alt where the ${control} leads or what it does, such as \`alt="To the members’ desk"\`.`,
    };
  },
  mend: ({ control }, { culprit }) => askFor(culprit, 'alt', askOfControl(control)),
  samples: [{ control: 'link' }],
  examples: {
    faulty: [
      {
        name: 'a logo that leads home',
        code: '<a href="/desk"><img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt=""></a>',
      },
    ],
    sound: [
      {
        name: 'text beside the picture',
        code: '<a href="/desk"><img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt=""> The members’ desk</a>',
      },
      {
        name: 'a label on the link',
        code: '<a href="/desk" aria-label="The members’ desk"><img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt=""></a>',
      },
    ],
  },
});
