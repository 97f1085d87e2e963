import { describe, expect, test } from '@jest/globals';
import { Budget } from '../../src/render/bounds/budget.js';
import { getHostPage } from '../../src/core/host/host-page.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { getTraits } from '../../src/core/markup/traits.js';
import { planRenders } from '../../src/core/plan.js';
import { FACT_KINDS, type FactKind } from '../../src/facts/kinds.js';
import type { GateHandle } from '../../src/render/gate/gates.js';
import { NO_HANDS, UNHURRIED, type Job } from '../../src/render/life/job.js';
import { NOTHING, type Learned } from '../../src/render/life/learned.js';
import type { BrowserPage, Preparation } from '../../src/render/page/browser-page.js';
import { Happenings } from '../../src/render/page/happenings.js';
import { RequestLog } from '../../src/render/page/request-log.js';
import { ServedPage } from '../../src/render/page/served-page.js';
import type { Setting } from '../../src/render/setting.js';
import { renderPage } from '../../src/render/stage.js';
import type { TakenShot } from '../../src/render/steps/shot.js';
import {
  defineStep,
  PHASES,
  type Phase,
  type Scene,
  type Step,
} from '../../src/render/steps/step.js';
import { STEPS, takeSteps } from '../../src/render/steps/table.js';

const house = getDefaultHouse();
const [render] = planRenders('x', house, house);
const TEXT = '<p>Sow</p>';
const BOX = { x: 16, y: 40, width: 288, height: 20 };

/** What an engine answers for the neutral page with one paragraph in its slot. */
const ELEMENT = {
  id: 1,
  parent: null,
  tag: 'p',
  order: 0,
  name: '',
  box: BOX,
  inkLeft: 16,
  inkRight: 60,
  shown: true,
  exposed: true,
  clipped: false,
  style: {
    display: 'block',
    position: '',
    float: '',
    width: '',
    minWidth: '',
    maxWidth: '',
    overflowX: '',
  },
  look: '',
  slot: 0,
};
const OBJECTS = {
  frames: [],
  media: [],
  pictures: [],
  controls: [],
  cuts: [],
  shifts: [],
  texts: [],
  policy: [],
  waits: [],
  layered: false,
  late: {},
  sounds: [],
  order: [{ signature: 'p', parent: -1 }],
  unplaced: false,
  failed: {},
};
const PAGE = {
  width: { scrollWidth: 320, clientWidth: 320, scrollable: true },
  direction: 'ltr',
  slots: [{ name: 'column', box: BOX, overhang: 0, text: false }],
  elements: [ELEMENT],
  total: 1,
  shows: true,
  strays: false,
};

/** An engine of our own, behind the same seam as that which comes along. */
class PaperPage implements BrowserPage {
  readonly mainFrame = 'main';
  readonly endLoad = () => undefined;
  readonly requests = new RequestLog();
  readonly happened = new Happenings('');
  readonly talks = false;
  readonly gone = false;
  address = '';
  readonly hand = {
    click: () => Promise.resolve(),
    listListeners: () => Promise.resolve([]),
    point: () => Promise.resolve(),
    wheel: () => Promise.resolve(),
    press: () => Promise.resolve(),
    swipe: <T>(_way: unknown, meanwhile: () => Promise<T>) => meanwhile(),
  };
  readonly running = {
    listRan: () => Promise.resolve([]),
    measureBusy: () => Promise.resolve(0),
    sampleWork: () => Promise.resolve([]),
    getTime: () => Promise.resolve(0),
    timeWork: () => Promise.resolve([]),
  };
  readonly screen = {
    count: 0,
    watch: () => Promise.resolve(),
    take: () => [],
    whenShown: () => new Promise<true>(() => undefined),
    rest: () => Promise.resolve(),
  };
  putIn = () => Promise.resolve();
  readPicture = () => Promise.resolve(null);
  listCookies = () => Promise.resolve([]);
  readonly done: string[] = [];
  prepared: Preparation | null = null;
  answers: Record<string, unknown> = {
    settle: [],
    settleAndRead: { moving: [], whole: { page: PAGE, objects: OBJECTS } },
    readWhole: { page: PAGE, objects: OBJECTS },
    readLayers: [],
    setGutter: undefined,
  };

  prepare(wish: Preparation): Promise<void> {
    this.prepared = wish;
    return Promise.resolve();
  }

  load(address: string): Promise<true> {
    this.address = address;
    this.done.push('load');
    return Promise.resolve(true);
  }

  resize(): Promise<void> {
    this.done.push('resize');
    return Promise.resolve();
  }

  read: BrowserPage['read'] = (name, ..._args) => {
    this.done.push(name);
    if (!(name in this.answers)) return Promise.reject(new Error(`nobody answers ${name}`));
    return Promise.resolve(this.answers[name] as never);
  };

  readFrames = () => Promise.resolve([]);
  findOwner = () => Promise.resolve(null);
  openClosedRoots = () => Promise.resolve();
  listMakers = () => Promise.resolve([]);
  learnSounds = () => Promise.resolve();
  hasSound = () => null;
  watchHeart = () => ({
    hung: new Promise<'hung'>(() => undefined),
    decide: () => Promise.resolve('answers' as const),
    stop: () => undefined,
  });
  contain = () => Promise.resolve(null);
  aged = false;
  pass = () => Promise.resolve({ busy: false, ahead: 0 });
  shoot = () => Promise.resolve(Buffer.from('PNG'));
  draw = () => Promise.resolve(null);
  listFiles = () => Promise.resolve([]);
  close = () => Promise.resolve();
}

async function run(page: PaperPage, given: Partial<Job> & { reach?: Setting['reach']['by'] } = {}) {
  const gate = {
    setPage: () => Promise.resolve(),
    takeLog: () => Promise.resolve({ refusals: [], entries: [] }),
  };
  const place = { page, gate: gate as unknown as GateHandle, log: { refusals: [], entries: [] } };
  const host = getHostPage(house.slots, null)!;
  const snippets = [{ slot: 'column', text: TEXT }];
  const sources = {
    host,
    snippets,
    address: `${house.origin}/`,
    published: false,
    headers: {},
    late: [],
  };
  const setting: Setting = {
    terms: { steps: [], root: null, cold: true },
    around: {
      ...{ window: render!.viewport, published: false, ownPage: false, hostChanges: false },
      ...{ pageFamily: null, points: false },
    },
    reach: { by: 'load', served: new ServedPage(sources), before: null },
    limits: { load: 1000, settle: 1000, hang: 1000 },
    budget: new Budget(),
  };
  const markup = readMarkup(TEXT);
  const job: Job = {
    ...UNHURRIED,
    subject: { texts: [TEXT], markups: [markup], traits: [getTraits(markup)] },
    render: render!,
    baseline: null,
    known: [NOTHING],
    wants: new Set(FACT_KINDS),
    hands: NO_HANDS,
    postpones: false,
    shots: 'taken',
    region: null,
    minute: 'no',
    watched: false,
  };
  const { reach = 'load', ...more } = given;
  const reached = { ...setting, reach: { ...setting.reach, by: reach } as Setting['reach'] };
  const rendered = await renderPage(place, sources, reached, { ...job, ...more });
  return { evidence: rendered.evidence[0]!, shot: rendered.shots[0] };
}

describe('a render in any engine that does what the seam says', () => {
  test('is made ready, loaded, brought to rest, read, and shot last', async () => {
    const page = new PaperPage();
    const { evidence, shot } = await run(page);
    expect(page.done).toEqual(['load', 'settleAndRead']);
    expect(page.prepared).toMatchObject({ variant: 'as-is', before: null, traced: false });
    expect(evidence.gaps).toEqual([]);
    expect(evidence.elements.map(({ tag, from }) => [tag, from])).toEqual([['p', { offset: 0 }]]);
    expect(evidence.shot?.hash).toBe(shot?.shot.hash);
  });

  test('what stands there is brought to another width where it cannot tell', async () => {
    const page = new PaperPage();
    await run(page, { reach: 'resize', shots: 'none' });
    expect(page.done).toEqual(['resize', 'settleAndRead']);
  });

  test('what does not come to rest at once is waited for, and then read', async () => {
    const page = new PaperPage();
    page.answers.settleAndRead = { moving: ['fonts'], whole: null };
    const { evidence } = await run(page);
    expect(page.done).toEqual(['load', 'settleAndRead', 'settle', 'readWhole']);
    expect(evidence.gaps).toEqual([]);
  });

  test('what it does not answer is a gap, and what one kind lacks that of this kind alone', async () => {
    const mute = new PaperPage();
    delete mute.answers.readWhole;
    delete mute.answers.settleAndRead;
    const { evidence } = await run(mute);
    expect(new Set(evidence.gaps.map(({ why }) => why))).toEqual(
      new Set(['the page could not be read']),
    );
    const lame = new PaperPage();
    delete lame.answers.settleAndRead;
    lame.answers.readWhole = {
      page: PAGE,
      objects: { ...OBJECTS, failed: { media: 'TypeError: no media' } },
    };
    const { gaps } = (await run(lame)).evidence;
    expect(gaps.map(({ kind, why }) => [kind, why])).toEqual([
      ['media', 'media could not be read (TypeError: no media)'],
    ]);
  });

  test('what nobody wants is not asked for, and the evidence says that it was not looked for', async () => {
    const page = new PaperPage();
    const asked: unknown[] = [];
    page.read = (name, ...args) => {
      asked.push([name, ...args]);
      return Promise.resolve(page.answers[name] as never);
    };
    const { evidence } = await run(page, { wants: new Set(['page', 'elements']), shots: 'none' });
    expect(asked).toEqual([
      [
        'settleAndRead',
        expect.anything(),
        expect.objectContaining({ kinds: ['page', 'elements'] }),
      ],
    ]);
    expect(evidence.sought).toEqual(['page', 'elements']);
    expect((await run(new PaperPage())).evidence.sought).toBeUndefined();
  });
});

describe('the steps of a render', () => {
  const scene = (name: string, wants: FactKind[], log: string[]) =>
    ({
      page: { note: (step: string) => log.push(`${step} ${name}`) },
      job: { wants: new Set(wants) },
      setting: { limits: { hang: 50 }, budget: new Budget() },
      ...{ reading: {}, parted: {}, hung: false, tooWide: true, known: NOTHING },
      facts: { texts: [], host: [] },
    }) as unknown as Scene;
  const step = (phase: Phase, kind: FactKind | null, more: Partial<Step<string>> = {}) =>
    defineStep<string>({
      ...{ name: phase, phase, kind },
      take: ({ page }) => {
        (page as unknown as { note(step: string): void }).note(phase);
        return Promise.resolve(phase);
      },
      ...more,
    });

  test('are taken phase by phase for all snippets, in whatever order they stand', async () => {
    const log: string[] = [];
    const scenes = [scene('a', ['texts'], log), scene('b', [], log)];
    await takeSteps(scenes, [
      step('used by hands', null),
      step('pictured', 'texts'),
      step('asked of the browser', null),
      step('posed', null, { isDue: () => false }),
    ]);
    expect(log).toEqual([
      'asked of the browser a',
      'asked of the browser b',
      'pictured a',
      'used by hands a',
      'used by hands b',
    ]);
  });

  test('what one is not answered in time is a gap of its kind, and costs the others nothing', async () => {
    const never = { take: () => new Promise<never>(() => undefined) };
    const broken = { take: () => Promise.reject(new Error('no answer')) };
    const log: string[] = [];
    const [found] = await takeSteps(
      [scene('a', ['host', 'styles'], log)],
      [
        step('asked of the browser', 'host', { ...never, tells: () => ({ host: [] }) }),
        step('asked of the browser', 'styles', broken),
        step('posed', null),
      ],
    );
    expect(found!.gaps.map(({ kind, kept }) => [kind, kept])).toEqual([
      ['host', 1],
      ['styles', 1],
    ]);
    expect(log).toEqual(['posed a']);
  });

  test('of a page that was stopped, or not read, only those are taken that say so', async () => {
    const tell = async (more: Partial<Scene>) => {
      const log: string[] = [];
      await takeSteps(
        [{ ...scene('a', ['styles'], log), ...more }],
        [
          step('asked of the browser', 'styles', { alsoHung: true }),
          step('changed by trying', null),
          step('posed', null, { alsoHung: true }),
        ],
      );
      return log;
    };
    expect(await tell({ hung: true })).toEqual(['asked of the browser a', 'posed a']);
    expect(await tell({ parted: null })).toEqual(['posed a']);
  });

  test('what each tells, teaches and shows is put together, and changes no other’s', async () => {
    const first = scene('a', [], []);
    const shot = { shot: { hash: 'a' } } as unknown as TakenShot;
    const learns = (known: Learned, refused: string) => ({ ...known, refused: [refused] as never });
    const [found] = await takeSteps(
      [first],
      [
        step('pictured', null, { tells: (facts) => ({ texts: [facts.host.length as never] }) }),
        step('asked of the browser', null, { tells: () => ({ host: [1, 2] as never }), learns }),
        step('posed', null, { shows: () => ({ shot }) }),
      ],
    );
    expect(found).toEqual({
      facts: { host: [1, 2], texts: [2] },
      learned: { ...first.known, tooWide: true, refused: ['asked of the browser'] },
      gaps: [],
      shot,
      harm: null,
    });
    expect(first.facts).toEqual({ texts: [], host: [] });
  });

  test('one that is due no more when its turn comes is not taken', async () => {
    const log: string[] = [];
    const isDue = () => log.length === 0;
    await takeSteps(
      [scene('a', [], log)],
      [step('pictured', null), step('posed', null, { isDue })],
    );
    expect(log).toEqual(['pictured a']);
  });

  test('what is known is told when no step that is left teaches anything', async () => {
    const tell = async (...teaching: boolean[]) => {
      const log: string[] = [];
      const learns = (known: Learned) => known;
      const steps = (['pictured', 'changed by trying', 'posed'] as const).map((phase, i) =>
        step(phase, null, { learns, teaches: () => teaching[i]! }),
      );
      await takeSteps([scene('a', [], log)], steps, () => log.push('told'));
      return log.indexOf('told');
    };
    expect(await tell(false, false, false)).toBe(0);
    expect(await tell(true, false, false)).toBe(1);
    expect(await tell(false, true, false)).toBe(2);
    expect(await tell(true, true, true)).toBe(3);
  });

  test('each stands in the table once, in a phase that there is', () => {
    expect(new Set(STEPS.map(({ name }) => name)).size).toBe(STEPS.length);
    expect(STEPS.filter(({ phase }) => !PHASES.includes(phase))).toEqual([]);
  });
});
