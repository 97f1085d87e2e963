// What is measured inside of one process: with and without a part of the work, in turn.
import { parseFragment } from 'parse5';
import { CHECKS } from '../dist/src/checks/index.js';
import { getDefaultHouse } from '../dist/src/core/house/read.js';
import { judgeSnippet } from '../dist/src/core/judge/judge.js';
import { readMarkup } from '../dist/src/core/markup/markup.js';
import { planRenders } from '../dist/src/core/plan.js';
import { findBrowser } from '../dist/src/render/browser/find.js';
import { ALL_WANTED } from '../dist/src/core/wants.js';
import { Renderer } from '../dist/src/render/renderer.js';
import { measure } from '../dist/src/run/measure.js';

const ROUNDS = 3;
const LISTENER = { onMore: () => undefined, onRender: () => undefined };

/** Reading and judging the markup alone, against parsing it: times in ms, a round each. */
export function timeMarkup(texts) {
  const house = getDefaultHouse();
  const parse = (text) => parseFragment(text, { sourceCodeLocationInfo: true });
  const judge = (text) => {
    const snippet = { name: 'paste', path: null, text };
    const markup = readMarkup(text, snippet);
    const rest = { house, evidence: [], baselines: new Map(), checks: CHECKS };
    judgeSnippet({ snippet, markup, ...rest, today: '2026-01-01', markupOnly: 'only markup' });
  };
  // In turn for each text: how fast a machine is changes from one second to the next.
  const time = () => {
    const times = [0, 0];
    for (const text of texts)
      for (const [i, work] of [parse, judge].entries()) {
        const start = performance.now();
        work(text);
        times[i] += performance.now() - start;
      }
    return times;
  };
  // Once for nothing: what is compiled late is compiled then.
  time();
  const rounds = Array.from({ length: 5 }, time);
  return { parsed: rounds.map(([one]) => one), judged: rounds.map(([, one]) => one) };
}

/** Rendering with and without looking for causes and cures: times in ms, a round each. */
export async function timeCauses(texts) {
  const house = getDefaultHouse();
  const program = await findBrowser();
  const common = { program, house, ownPage: null, root: null, offline: true };
  const renderers = await Promise.all(
    [without('causes'), ALL_WANTED].map((wants) => Renderer.open({ ...common, wants })),
  );
  const time = async (renderer) => {
    const start = performance.now();
    for (const [i, text] of texts.entries()) {
      const snippet = { name: `s${i}`, path: null, text };
      await measure(
        renderer,
        snippet,
        planRenders(snippet.name, house, house),
        { checks: CHECKS, house },
        LISTENER,
      );
    }
    return performance.now() - start;
  };
  const times = [[], []];
  for (let round = 0; round <= ROUNDS; round++)
    for (const [i, renderer] of renderers.entries()) {
      const took = await time(renderer);
      if (round > 0) times[i].push(took);
    }
  await Promise.all(renderers.map((one) => one.close()));
  return { without: times[0], found: times[1] };
}

/** All kinds of facts but one. */
function without(kind) {
  const entries = Object.entries(ALL_WANTED);
  return Object.fromEntries(
    entries.map(([variant, kinds]) => [variant, kinds.filter((one) => one !== kind)]),
  );
}
