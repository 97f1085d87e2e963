import { CHECKS } from '../../dist/src/checks/index.js';
import type { Example } from '../../dist/src/core/check.js';
import type { Evidence } from '../../dist/src/core/evidence.js';
import { readMarkup } from '../../dist/src/core/markup/markup.js';
import { makeJob } from '../../dist/src/core/measuring.js';
import { isDrill, planRenders } from '../../dist/src/core/plan.js';
import { findBrowser } from '../../dist/src/render/browser/find.js';
import { measure } from '../../dist/src/run/measure.js';
import { Renderer } from '../../dist/src/render/renderer.js';
import { EXAMPLE_HOUSE, getHouse, type Recorded } from './recorded.js';
import { HOSTS, startStandIns, type StandIns } from '../../dist/demo/stand-ins/index.js';

type Under = Example['under'];

/** One browser and one stand-in process for a whole file of tests. */
export interface Live {
  renderer: Renderer;
  /** @param asked the checks that are asked, by their names; `drilled`: all, and hosts do not answer, in turn; left out: all but these */
  render(code: string, under?: Under, asked?: readonly string[] | 'drilled'): Promise<Recorded>;
  /** At rest alone: nothing is lived on, clicked, or asked for besides. */
  look(code: string): Promise<Evidence[]>;
  close(): Promise<void>;
}

const USUAL = CHECKS.filter((one) => !isDrill(one)).map(({ id }) => id);

export async function openLive(): Promise<Live> {
  const standIns: StandIns = await startStandIns();
  const reroute = Object.fromEntries(HOSTS.map((host) => [host, standIns.origin]));
  const program = await findBrowser();
  const toOptions = (under: Under) => ({
    program,
    house: { ...getHouse(under), reroute },
    ownPage: under?.page ?? null,
    root: null,
    offline: false,
    limits: { load: 8000, settle: 4000, hang: 4000 },
  });
  const first = await Renderer.open(toOptions(undefined));
  const renderers = new Map<string, Promise<Renderer>>([['{}', Promise.resolve(first)]]);
  // One browser for all houses, but for those of another language.
  const open = (under: Under) => {
    const options = toOptions(under);
    const isAlike = options.house.language === EXAMPLE_HOUSE.language;
    return isAlike ? Promise.resolve(first.beside(options)) : Renderer.open(options);
  };
  const find = (under: Under) => {
    const key = JSON.stringify(under ?? {});
    if (!renderers.has(key)) renderers.set(key, open(under));
    return renderers.get(key)!;
  };
  return {
    renderer: first,
    async render(code, under, asked = USUAL) {
      const snippet = { name: 'example', path: null, text: code };
      const house = getHouse(under);
      const renders = planRenders('example', house, house);
      const ignore = { onMore: () => undefined, onRender: () => undefined };
      const job = makeJob(snippet, {
        renders,
        checks: asked === 'drilled' ? CHECKS.map(({ id }) => id) : [...asked],
        timeLimit: null,
      });
      const { evidence, baselines } = await measure(await find(under), job, ignore);
      return { code, ...(under && { under }), evidence, baselines };
    },
    look(text) {
      const snippet = { name: 'example', path: null, text };
      const renders = planRenders('example', EXAMPLE_HOUSE, EXAMPLE_HOUSE);
      const doing = { minute: false, hands: false };
      const ignore = () => undefined;
      return first.renderSnippet(snippet, readMarkup(text), renders, ignore, undefined, doing);
    },
    async close() {
      for (const renderer of [...renderers.values()].reverse()) await (await renderer).close();
      await standIns.close();
    },
  };
}
