import { defineCheck, makeSeen, type Case, type Fact, type MarkupFact } from '../../core/check.js';
import type { ControlFact } from '../../core/evidence.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import { isHidden } from '../../core/markup/hidden.js';
import { getValue, listInside, type Markup, type MarkupElement } from '../../core/markup/markup.js';
import { describeElement, getMarkupControlName } from '../../core/markup/names.js';
import { atTag, blameElement, getBlamed } from '../../core/measure/blame.js';
import { askFor } from '../../core/mend/attribute.js';
import { getControl, isDecoration } from '../../core/standards/elements.js';
import { tell } from '../../core/tell.js';
import { capitalize, nameElement } from '../../core/words/list.js';

interface Data {
  tag: string;
  kind: ControlFact['kind'];
  /** An id that another element before it has too, which its label finds; null where that is not why. */
  shared: string | null;
}

type Measured = Record<'width' | 'height', number>;

export default defineCheck({
  id: 'control-unnamed',
  subject: 'pictures',
  level: 'blocker',
  title: 'A field, a button or a link has no name',
  decided:
    'A link, a button, a field, or what has the role of one gives no name by the accessible-name computation: no label, no words in it, no title, no placeholder. Not where it is hidden, nor where a picture or a drawing in it without a name is the cause.',
  standard: 'WCAG 2.2, 4.1.2 Name, Role, Value and 2.4.4 Link Purpose',
  needs: ['controls'],
  markup: true,
  judge: judgeRenders,
  unrendered: ({ markup }) => tellNameless(markup),
  says({ tag, kind, shared }, { culprit }) {
    const what = capitalize(nameElement(tag, culprit));
    if (shared !== null) {
      return {
        message: `${what} has no name: its label finds another element, which has the id “${shared}” too.`,
        notice: 'A screen reader does not say what it is for; a click on its label goes elsewhere.',
        cure: 'Give it an id of its own, and put that into the `for` of its label.',
      };
    }
    if (kind === 'field') {
      return {
        message: `${what} has no name.`,
        notice: 'A screen reader says that there is a field, and not what belongs in it.',
        cure: 'Put a `<label>` around it with what is to be filled in, or say it in `aria-label`.',
      };
    }
    return {
      message: `${what} has no name: there are no words in it, and no label.`,
      notice:
        kind === 'link'
          ? 'A screen reader says “link”, or reads out an address, and not where it leads.'
          : 'A screen reader says “button”, and not what it does.',
      cure: `Put words into it that say ${kind === 'link' ? 'where it leads' : 'what it does'}, or say it in \`aria-label\`.`,
    };
  },
  mend: ({ kind, shared }, { culprit }) =>
    shared ? null : askFor(culprit, 'aria-label', QUESTIONS[kind]),
  measures: ({ width, height }) => `${Math.round(width)} × ${Math.round(height)} px large`,
  samples: [
    { tag: 'input', kind: 'field', shared: null },
    { tag: 'a', kind: 'link', shared: null },
    { tag: 'button', kind: 'button', shared: null },
    { tag: 'input', kind: 'field', shared: 'seed' },
  ],
  examples: {
    faulty: [
      {
        name: 'a field with words beside it',
        code: '<p>Your name: <input type="text" style="max-width: 100%"></p>',
      },
      {
        name: 'a button with a hidden sign',
        code: '<button type="button"><svg aria-hidden="true" viewBox="0 0 10 10" width="24" height="24"><path d="M1 1h8v8h-8z"/></svg></button>',
      },
    ],
    sound: [
      {
        name: 'a label around it',
        code: '<label>Your name: <input type="text" style="max-width: 100%"></label>',
      },
      {
        name: 'a placeholder',
        code: '<input type="search" placeholder="Look for seed" style="max-width: 100%">',
      },
      {
        name: 'words in a button, for those who hear',
        code: '<button type="button" aria-label="Close the list">×</button>',
      },
      { name: 'a button that the browser names', code: '<form><input type="submit"></form>' },
    ],
  },
});

const QUESTIONS: Record<ControlFact['kind'], string> = {
  link: 'Where does the link lead?',
  button: 'What does the button do?',
  field: 'What is to be filled in?',
};

function judgeRenders(c: Case<'controls'>): Fact<Data, Measured>[] {
  return flatMap(c.renders, (render) => {
    const unnamed = render.controls.filter((one) => one.name === '' && !one.ignored && one.exposed);
    return mapPresent(unnamed, (control): Fact<Data, Measured> | null => {
      const blame = blameElement(c.markup, control);
      const element = getBlamed(c.markup, blame);
      if (element ? isTold(c.markup, element) : control.pictured) return null;
      const { tag, kind, box } = control;
      const seen = makeSeen(render, { width: box.width, height: box.height });
      return tell.seen(blame, { tag, kind, shared: findShared(c.markup, element) }, seen);
    });
  });
}

function tellNameless(markup: Markup): MarkupFact<Data>[] {
  return mapPresent(markup.elements, (element): MarkupFact<Data> | null => {
    const control = getControl(describeElement(element));
    if (!control || isHidden(markup, element) || isDecoration(describeElement(element)))
      return null;
    // What is outside of the snippet may name it.
    const elsewhere = getValue(element, 'aria-labelledby')?.trim();
    if (elsewhere || getMarkupControlName(markup, element, control)) return null;
    if (isTold(markup, element)) return null;
    return tell.markup(atTag(element), {
      tag: element.name,
      kind: control.kind,
      shared: findShared(markup, element),
    });
  });
}

/** Whether a label is meant for it by an id that an element before it has as well. */
function findShared({ elements }: Markup, element: MarkupElement | null): string | null {
  const id = element && getValue(element, 'id');
  if (!id) return null;
  const has = (one: MarkupElement, name: string) => getValue(one, name) === id;
  const taken = elements.some((one) => one.offset < element.offset && has(one, 'id'));
  const labels = elements.filter((one) => one.name === 'label' && has(one, 'for'));
  return taken && labels.length > 1 ? id : null;
}

/** Whether a picture or a drawing in it is told of: the one without a text alternative, the other without a name. */
function isTold(markup: Markup, control: MarkupElement): boolean {
  const inside = listInside(control);
  const isHeard = (one: MarkupElement) =>
    !isHidden(markup, one) && !isDecoration(describeElement(one));
  const pictures = inside.filter(({ name }) => name === 'img');
  const empty = pictures.some((one) => getValue(one, 'alt')?.trim() === '');
  const without = pictures.some((one) => getValue(one, 'alt') === null && isHeard(one));
  const drawn = inside.some((one) => one.name === 'svg' && isHeard(one));
  return empty || without || (drawn && pictures.length === 0);
}
