import {
  defineCheck,
  makeSeen,
  type Case,
  type Fact,
  type RenderOf,
  type MarkupFact,
} from '../../core/check.js';
import type { Facts } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { getValue, getTagSpan, type Markup } from '../../core/markup/markup.js';
import { atSnippet, blameElement } from '../../core/measure/blame.js';
import { findCall } from '../../core/measure/calls.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';

type Taking = 'dialog' | 'layer' | 'window' | 'reload' | 'leave';

interface Data {
  kind: Taking;
  /** The dialog's words, or the address. */
  detail: string;
}

type Measured = { dialogs?: number; windows?: number; to?: string; opened?: boolean };

type Needs = 'scripts';

const BRIEFS: Record<Taking, string> = {
  dialog: 'a dialog opens by itself',
  layer: 'it opens over the page by itself',
  window: 'a window opens by itself',
  reload: 'it reloads the page',
  leave: 'it leads the visitor away',
};

type Dialog = Facts['scripts']['dialogs'][number];

/** So many dialogs in one load have no end. */
const ENDLESS = 10;

/** What the source of each looks like. */
const CALLS: Record<Taking, RegExp> = {
  dialog: /\b(alert|confirm|prompt|print)\s*\(/,
  layer: /\b(showModal|showPopover|togglePopover)\s*\(/,
  window: /\bopen\s*\(/,
  reload: /\b(location|reload|http-equiv|history)\b/i,
  leave: /\b(location|http-equiv|submit|history|navigate)\b/i,
};

export default defineCheck({
  id: 'page-taken-over',
  subject: 'page',
  level: 'blocker',
  title: 'The snippet takes the page from the visitor',
  decided:
    'Without a visitor’s action it opens a dialog, a popover or a window, reloads the page or leaves it, by script or by a meta refresh, however late.',
  standard:
    'HTML Living Standard, 8.8.1 Simple dialogs; WCAG 2.2, 3.2.1 On Focus and 2.2.4 Interruptions',
  needs: ['scripts'],
  markup: 'part',
  judge: (c) => flatMap(c.renders, (render) => judgeRender(c, render)),
  unrendered: ({ markup }) => tellRefreshes(markup),
  // Dialogs without end keep the page busy too.
  explains: [
    { findings: ['page-settings-changed'], anywhere: true },
    // What is left, or reloaded, is not read to its end.
    { findings: ['host-content-damaged'], anywhere: true, fits: () => true },
    {
      findings: ['covers-host-controls', 'covered-by-layer', 'focus-taken-at-load'],
      anywhere: true,
      fits: () => true,
      when: ({ measured }) => measured.opened === true,
    },
    { findings: ['page-hangs'], when: ({ measured }) => (measured.dialogs ?? 0) >= ENDLESS },
  ],
  says({ kind, detail }) {
    if (kind === 'dialog') {
      return {
        message: `A dialog opens by itself: ${detail}.`,
        notice: 'The page is blocked until the visitor has closed it.',
        cure: 'Take the call out, or put the words into the page.',
      };
    }
    if (kind === 'layer') {
      return {
        message: `A ${detail} opens by itself and lies over the page.`,
        notice: 'The page cannot be used until the visitor has found out how to close it.',
        cure: 'Open it from a link or a button that the visitor presses, or put the words into the page.',
      };
    }
    if (kind === 'window') {
      return {
        message: `A window is to open by itself${detail ? `, with ${detail}` : ''}.`,
        notice: 'Browsers block it; where they do not, it covers what the visitor reads.',
        cure: 'Open it from a link or a button that the visitor presses.',
      };
    }
    return {
      message:
        kind === 'reload'
          ? 'The snippet reloads the page.'
          : `The snippet leads the visitor away, to ${detail}.`,
      notice:
        kind === 'reload' ? 'The page loads again and again.' : 'The page they came for is gone.',
      cure: 'Take out what sets the location or refreshes the page.',
    };
  },
  measures: ({ dialogs = 0 }) => (dialogs > 1 ? `${dialogs} dialogs, one after the other` : ''),
  brief: ({ kind }) => BRIEFS[kind],
  samples: [
    { kind: 'dialog', detail: '' },
    { kind: 'layer', detail: 'modal <dialog>' },
    { kind: 'window', detail: '' },
    { kind: 'reload', detail: '' },
    { kind: 'leave', detail: 'another address' },
  ],
  examples: {
    faulty: [
      { name: 'a greeting', code: '<script>alert("Welcome to the glasshouse");</script>' },
      {
        name: 'a page that is to be printed at once',
        code: '<p>Sow in May.</p><script>print()</script>',
      },
      {
        name: 'a dialog of the page’s own kind',
        code: '<dialog id="swap"><p>Seed swap on Saturday</p><form method="dialog"><button>Close</button></form></dialog><script>document.getElementById("swap").showModal();</script>',
      },
      {
        name: 'a refresh that comes later',
        code: '<meta http-equiv="refresh" content="30; url=https://www.seedlibrary.example/beds"><p>Sow in May.</p>',
      },
      {
        name: 'a window by itself',
        code: '<p>Sow in May.</p><script>open("https://maps.fernmap.example/embed/glasshouse")</script>',
      },
    ],
    sound: [
      {
        name: 'a dialog that waits for a click',
        code: '<button type="button" onclick="alert(\'The desk is open\')">Opening times</button>',
      },
      {
        name: 'one that lies open in its place',
        code: '<dialog open style="position: static"><p>Seed swap on Saturday</p></dialog>',
      },
      {
        name: 'a step within the page',
        code: '<p>Sow in May.</p><script>location.hash = "beds"; history.replaceState(null, "", "#beds")</script>',
      },
    ],
  },
});

function nameDialog({ kind, text }: Dialog): string {
  return kind === 'print' ? 'the one for printing' : `${kind} “${text}”`;
}

function judgeRender({ markup }: Case<Needs>, render: RenderOf<Needs>): Fact<Data, Measured>[] {
  const { dialogs, windows, navigations } = render.scripts;
  const [dialog] = dialogs;
  const found: [Taking, string, Measured][] = [];
  if (dialog) found.push(['dialog', nameDialog(dialog), { dialogs: dialogs.length }]);
  if (windows[0] !== undefined) found.push(['window', windows[0], { windows: windows.length }]);
  for (const kind of ['reload', 'leave'] as const) {
    const gone = navigations.find((one) => one.kind === kind);
    if (gone) found.push([kind, gone.address, { to: gone.address }]);
  }
  const acts = found.map(([kind, detail, measured]): Fact<Data, Measured> =>
    tell.seen(
      atSnippet('page', locate(markup, kind)),
      { kind, detail },
      makeSeen(render, measured),
      { group: kind },
    ),
  );
  return [...acts, ...render.scripts.opened.map((one) => judgeOpened(markup, render, one))];
}

function judgeOpened(
  markup: Markup,
  render: RenderOf<Needs>,
  { tag, from, selector }: RenderOf<Needs>['scripts']['opened'][number],
): Fact<Data, Measured> {
  const blame = blameElement(markup, { from, selector });
  const detail = tag === 'dialog' ? 'modal <dialog>' : `<${tag}>`;
  const seen = makeSeen(render, { opened: true });
  return tell.seen(blame, { kind: 'layer', detail }, seen, { group: 'layer' });
}

/** The refresh, where there is one: it is a cause that needs no script. */
function locate(markup: Markup, kind: Taking): Span {
  const refresh = kind === 'reload' || kind === 'leave' ? findRefreshes(markup)[0] : undefined;
  return refresh ? getTagSpan(refresh) : findCall(markup, CALLS[kind]);
}

function tellRefreshes(markup: Markup): MarkupFact<Data>[] {
  return findRefreshes(markup).map((element) => {
    const address = /url\s*=\s*['"]?([^'"\s]+)/i.exec(getValue(element, 'content') ?? '')?.[1];
    const kind = address === undefined ? 'reload' : 'leave';
    const data: Data = { kind, detail: address ?? '' };
    return tell.markup(atSnippet(kind, getTagSpan(element)), data);
  });
}

function findRefreshes(markup: Markup) {
  return markup.elements.filter(
    (element) =>
      element.name === 'meta' &&
      getValue(element, 'http-equiv')?.trim().toLowerCase() === 'refresh' &&
      Boolean(getValue(element, 'content')?.trim()),
  );
}
