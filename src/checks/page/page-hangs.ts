import { defineCheck, makeSeen, type Case, type Fact, type RenderOf } from '../../core/check.js';
import { getElementAt } from '../../core/markup/addresses.js';
import { getTagSpan, type Markup } from '../../core/markup/markup.js';
import { isScript } from '../../core/markup/traits.js';
import type { Span } from '../../core/snippet.js';

interface Data {
  kind: 'hangs' | 'dialog' | 'reload' | 'leave';
  seconds: number;
  functionName: string | null;
  detail: string;
}

type Needs = 'scripts';

export default defineCheck({
  id: 'page-hangs',
  subject: 'page',
  level: 'blocker',
  title: 'The snippet stops the page, or takes the visitor away from it',
  decided:
    'Its code keeps the page from answering beyond the time limit, opens a dialog, reloads the page or goes elsewhere, without a visitor’s action.',
  standard:
    'HTML Living Standard, 8.8.1 Simple dialogs; WCAG 2.2, 3.2.1 On Focus and 2.2.4 Interruptions',
  needs: ['scripts'],
  markup: false,
  judge: (c) => c.renders.flatMap((render) => judgeRender(c, render)),
  says({ kind, seconds, functionName, detail }) {
    if (kind === 'hangs') {
      const where = functionName ? ` in ${functionName}()` : '';
      return {
        message: `The page stopped answering for over ${seconds} s: the code runs on${where} and does not end.`,
        notice: 'Nothing on the page reacts any more; the browser offers to close it.',
        cure: 'Give the loop an end, or do the work in small pieces.',
      };
    }
    if (kind === 'dialog') {
      return {
        message: `A dialog opens by itself: ${detail}.`,
        notice: 'The page is blocked until the visitor has closed it.',
        cure: 'Take the call out, or put the words into the page.',
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
  sample: { kind: 'hangs', seconds: 5, functionName: null, detail: '' },
  examples: {
    faulty: [
      {
        name: 'a loop without end',
        code: '<p>Sowing calendar</p><script>for (let week = 1; week > 0; ) { week = (week % 52) + 1; }</script>',
      },
      { name: 'a greeting', code: '<script>alert("Welcome to the glasshouse");</script>' },
    ],
    sound: [
      {
        name: 'a loop that ends',
        code: '<p>Sowing calendar</p><script>for (let week = 1; week < 52; week++) { Math.sqrt(week); }</script>',
      },
      {
        name: 'a dialog that waits for a click',
        code: '<button type="button" onclick="alert(\'The desk is open\')">Opening times</button>',
      },
    ],
  },
});

function judgeRender({ markup }: Case<Needs>, { render, scripts }: RenderOf<Needs>): Fact<Data>[] {
  const facts: Fact<Data>[] = [];
  const add = (data: Data, where: Span, measured: Record<string, string | number | null>) =>
    facts.push({
      where,
      subject: data.kind,
      confirmed: true,
      data,
      seen: [makeSeen(render, measured)],
    });
  const { hung, dialogs, navigations } = scripts;
  // Dialogs without end keep the page busy too: they are the cause then.
  if (hung && dialogs.length === 0) {
    const where = findLine(markup, hung.from && 'offset' in hung.from ? hung.from.offset : null);
    add(
      { kind: 'hangs', seconds: hung.seconds, functionName: hung.functionName, detail: '' },
      where,
      {
        seconds: hung.seconds,
      },
    );
  }
  const [dialog] = dialogs;
  if (dialog) {
    const detail = `${dialog.kind} “${dialog.text}”`;
    const where = findCall(markup, /\b(alert|confirm|prompt)\s*\(/);
    add({ kind: 'dialog', seconds: 0, functionName: null, detail }, where, {
      dialogs: dialogs.length,
    });
  }
  for (const kind of ['reload', 'leave'] as const) {
    const gone = navigations.find((one) => one.kind === kind);
    if (!gone) continue;
    const where = findCall(markup, /\b(location|reload|http-equiv)\b/i);
    add({ kind, seconds: 0, functionName: null, detail: gone.address }, where, {
      to: gone.address,
    });
  }
  return facts;
}

/** The line that hung, where the profiler named one; else the first script. */
function findLine(markup: Markup, offset: number | null): Span {
  if (offset === null) return findCall(markup, /\b(while|for)\s*\(/);
  const end = markup.text.slice(offset).search(/\r|\n|$/) + offset;
  const element = getElementAt(markup, offset);
  const start = Math.max(offset, element?.tagEnd ?? 0);
  const close = markup.text.indexOf('</script', start);
  const stop = close > start ? Math.min(end, close) : end;
  const line = markup.text.slice(start, stop);
  const lead = line.length - line.trimStart().length;
  return line.trim()
    ? { offset: start + lead, endOffset: start + line.trimEnd().length }
    : { offset: start, endOffset: stop };
}

/** The script, or the element, whose text has the call; else the first script. */
function findCall(markup: Markup, call: RegExp): Span {
  const scripts = markup.elements.filter(isScript);
  const inline = scripts.find((script) => call.test(script.text));
  const match = inline && call.exec(markup.text.slice(inline.tagEnd));
  if (inline && match)
    return {
      offset: inline.tagEnd + match.index,
      endOffset: inline.tagEnd + match.index + match[0].length,
    };
  const attribute = markup.elements
    .flatMap(({ attributes }) => attributes)
    .find(({ name, value }) => call.test(`${name} ${value}`));
  if (attribute) return { offset: attribute.offset, endOffset: attribute.endOffset };
  const first = scripts[0] ?? markup.elements[0];
  return first ? getTagSpan(first) : { offset: 0, endOffset: 0 };
}
