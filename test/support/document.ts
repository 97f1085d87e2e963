import type { LoadReport, LoadsReport } from '../../src/core/loads-report.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import type { Finding, RunDocument, SnippetReport } from '../../src/core/run.js';

const TEXT = '<p>Sow</p>\n<iframe width="640"></iframe>\n';

export const makeSeen = (
  slot: string,
  width: number,
  overhang: number,
): Finding['seen'][number] => ({
  slot,
  insert: 'inline',
  viewport: String(width),
  width,
  density: 1,
  scheme: 'light',
  condition: '',
  engine: 'chromium',
  variant: 'as-is',
  after: null,
  scrolled: null,
  measured: { overhang },
  what: `${overhang} px beyond the slot`,
});

export const makeFinding = (given: Partial<Finding> = {}): Finding => ({
  id: 'slot-overflow',
  key: '0123456789abcdef',
  cause: 1,
  brief: 'beyond its slot',
  level: 'concern',
  message: 'It reaches beyond its slot.',
  notice: 'It runs over the edge.',
  cure: 'Let it shrink.',
  standard: null,
  confirmed: true,
  where: { line: 2, column: 9, endLine: 2, endColumn: 20, offset: 19, endOffset: 30 },
  excerpt: 'width="640"',
  seen: [makeSeen('column', 320, 12.345), makeSeen('column', 390, 12.345)],
  ranges: [],
  mend: [{ offset: 19, endOffset: 30, text: 'width="100%"' }],
  ask: null,
  waiver: null,
  ...given,
});

export const makeRender = (
  slot: string,
  width: number,
  worst: Finding['level'] | null,
): SnippetReport['renders'][number] => ({
  slot,
  slotWidth: 288,
  slotHeight: null,
  insert: 'inline',
  viewport: String(width),
  width,
  height: 740,
  density: 1,
  scheme: 'light',
  condition: '',
  engine: 'chromium',
  variant: 'as-is',
  after: null,
  scrolled: null,
  worst,
  waived: false,
  fits: true,
  shot: null,
  harm: null,
  marks: [],
  traffic: [],
  frames: [],
  media: [],
});

/** Who loads whom; what is not given is a picture of the snippet's own. */
export const makeLoads = (requests: readonly Partial<LoadReport>[]): LoadsReport => ({
  ...{ slot: 'column', viewport: 'phone' },
  requests: requests.map((given) => ({
    ...{ address: '', host: new URL(given.address!).host, thirdParty: true, type: 'picture' },
    ...{ status: 200, wire: 0, unpacked: 0, failed: null, fresh: null },
    ...{ offset: null, line: null, by: null, inFrame: false },
    ...given,
  })),
});

export const makeSnippet = (given: Partial<SnippetReport> = {}): SnippetReport => ({
  name: 'map.html',
  path: 'map.html',
  published: null,
  hash: '',
  line: null,
  text: TEXT,
  verdict: 'clear',
  fitsFrom: 358,
  searched: { windows: [], tried: 0, why: null },
  frameFit: [],
  contacts: [],
  loads: null,
  openLines: [],
  renders: [makeRender('column', 320, 'concern'), makeRender('column', 1280, null)],
  findings: [],
  known: 0,
  causes: listCauses(given.findings ?? []),
  mended: null,
  gaps: [],
  ...given,
});

/** A change for each cause, where its gravest finding has one. */
function listCauses(findings: readonly Finding[]): SnippetReport['causes'] {
  const gravest = new Map([...findings].reverse().map((one) => [one.cause, one]));
  return [...gravest]
    .sort(([a], [b]) => a - b)
    .map(([number, { mend, id }]) => ({ number, mend, cures: mend ? [id] : [] }));
}

export const makeDocument = (
  snippets: SnippetReport[],
  given: Partial<RunDocument> = {},
): RunDocument => ({
  schema: 'mivket-run-1',
  tool: { name: 'mivket', version: '0' },
  startedAt: '2026-01-01T09:30:00.000Z',
  renderedAt: '2026-01-01T09:30:00.000Z',
  durationMs: 0,
  house: {
    file: null,
    ownPage: false,
    slots: [{ name: 'column', align: 'start', ranges: [] }],
    viewports: getDefaultHouse().viewports,
    holdOn: 'blocker',
  },
  engines: [{ name: 'chromium', version: 'HeadlessChrome/147.0' }],
  verdict: 'clear',
  counts: { blocker: 0, concern: 0, advice: 0 },
  checks: [],
  notJudged: [],
  since: null,
  idleWaivers: [],
  snippets,
  ...given,
});
