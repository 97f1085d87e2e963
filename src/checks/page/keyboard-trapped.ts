import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { blameElement } from '../../core/measure/blame.js';
import { tell } from '../../core/tell.js';
import { nameElement } from '../../core/words/list.js';

interface Data {
  tag: string;
  presses: number;
}

export default defineCheck({
  id: 'keyboard-trapped',
  subject: 'page',
  level: 'blocker',
  title: 'The keyboard cannot get out of it',
  decided:
    'Tab is pressed from before the snippet on, then Shift+Tab: neither takes the focus out of it, nor does Escape and then Tab. Tried in one window of each slot.',
  standard: 'WCAG 2.2, 2.1.2 No Keyboard Trap',
  needs: ['handling'],
  markup: false,
  judge: ({ markup, renders }) =>
    flatMap(renders, (render): Fact<Data>[] => {
      const { trapped } = render.handling;
      if (!trapped) return [];
      const blame = blameElement(markup, trapped);
      const { tag, presses } = trapped;
      const seen = makeSeen(render, { presses });
      return [tell.seen(blame, { tag, presses }, seen, { group: '' })];
    }),
  says({ tag, presses }, { culprit }) {
    return {
      message: `After ${presses} presses of Tab and Shift+Tab the focus is still inside, at last on ${nameElement(tag, culprit)}.`,
      notice: 'Who works by keyboard never reaches the rest of the page.',
      cure: 'Let Tab and Shift+Tab do what they always do, or let Escape close what keeps the focus.',
    };
  },
  brief: ({ tag }) => `the keyboard is kept in, at the <${tag}>`,
  samples: [{ tag: 'input', presses: 36 }],
  examples: {
    faulty: [
      {
        name: 'a field that takes Tab for itself',
        code: '<label>Seed <input id="seed"></label><script>document.querySelector("#seed").addEventListener("keydown", (event) => { if (event.key === "Tab") event.preventDefault() })</script>',
      },
    ],
    sound: [
      {
        name: 'two fields in a row that Tab passes through',
        code: '<label>Seed <input id="seed"></label> <label>How many <input></label><script>document.querySelector("#seed").addEventListener("keydown", (event) => { event.target.title = event.key })</script>',
      },
      {
        name: 'a box that keeps the focus until Escape closes it',
        code: '<div role="dialog" aria-label="Order" id="box"><button id="ok">Order</button></div><script>const box = document.querySelector("#box"); box.addEventListener("keydown", (event) => { if (event.key === "Tab") event.preventDefault(); if (event.key === "Escape") box.remove() })</script>',
      },
    ],
  },
});
