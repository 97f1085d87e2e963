import { formatBytes } from '../measure/units.js';
import { countWords, joinWords } from '../words/list.js';
import { formatAge, getMajor, getReleaseDay } from './releases.js';

/** A browser that is there, or was looked for. */
export interface BrowserFact {
  origin: 'bundled' | 'system' | 'given';
  path: string;
  /** As it says itself; null where it does not run. */
  version: string | null;
  /** Why it does not run. */
  fault: string | null;
}

/** What was found out about this machine. */
export interface MachineFacts {
  today: Date;
  node: string;
  platform: string;
  browsers: BrowserFact[];
  /** Where browsers were looked for, in words. */
  lookedFor: string;
  /** What came of starting the browser that a run would use. */
  start:
    | { path: string; origin: BrowserFact['origin']; sandboxed: boolean; fault: null }
    | { path: string | null; origin: null; sandboxed: false; fault: string };
  /** Scripts and signs of which no font here has the letters; null where that could not be tried. */
  boxes: string[] | null;
  /** What adds Chinese, Japanese and Korean to the fonts that came along. */
  moreFonts: string;
  /** The proxy variables that are set, without credentials; why one does not serve. */
  proxy: { name: string; value: string; usable: boolean; fault: string | null }[];
  folders: { what: string; path: string; fault: string | null; freeBytes: number | null }[];
  /** Certificates that are trusted besides those that Node brings: where from, how many, why not. */
  trusted: { source: string; count: number; fault: string | null }[];
  /** What versions before left in the cache. */
  old: { path: string; bytes: number }[];
  /** Why no port of the loopback can be opened; null where it can. */
  loopback: string | null;
}

/** One line of the doctor's: `bad` keeps an audit from its work. */
export interface Diagnosis {
  item: string;
  state: 'good' | 'note' | 'bad';
  words: string;
  /** What to do; null for nothing. */
  todo: string | null;
}

/** A browser so old no longer shows what visitors see. */
const OLD_MONTHS = 6;
const LEAST_FREE = 500_000_000;

/** From facts about the machine to what works here, and what to do where it does not. */
export function diagnose(facts: MachineFacts): Diagnosis[] {
  return [
    judgeNode(facts),
    ...judgeBrowsers(facts),
    judgeStart(facts),
    judgeSandbox(facts),
    judgeFonts(facts),
    ...judgeProxy(facts),
    ...facts.trusted.map(judgeTrusted),
    judgeLoopback(facts),
    ...facts.folders.map(judgeFolder),
    ...judgeOld(facts),
  ].filter((one) => one !== null);
}

function good(item: string, words: string): Diagnosis {
  return { item, state: 'good', words, todo: null };
}

function note(item: string, words: string, todo: string): Diagnosis {
  return { item, state: 'note', words, todo };
}

function bad(item: string, words: string, todo: string): Diagnosis {
  return { item, state: 'bad', words, todo };
}

function judgeNode({ node, platform }: MachineFacts): Diagnosis {
  const [major = 0, minor = 0] = node.replace(/^v/, '').split('.').map(Number);
  if (major > 20 || (major === 20 && minor >= 12)) return good('node', `${node} on ${platform}`);
  return bad('node', `${node} on ${platform} is too old`, 'Install Node 20.12 or newer.');
}

function judgeBrowsers({ browsers, lookedFor, today }: MachineFacts): Diagnosis[] {
  if (browsers.length === 0) {
    const words = `none is here; looked for ${lookedFor}`;
    return [bad('browser', words, 'Install Chrome, Chromium or Edge, or give --browser PATH.')];
  }
  const newest = browsers.reduce((a, b) => (isNewer(b, a) ? b : a));
  return browsers.map((browser) => judgeBrowser(browser, newest, today));
}

function judgeBrowser(browser: BrowserFact, newest: BrowserFact, today: Date): Diagnosis {
  const where = browser.origin === 'bundled' ? 'came along with Mivket' : browser.path;
  if (browser.version === null)
    return note('browser', `${where}: does not run (${browser.fault})`, 'See below, or remove it.');
  const released = getReleaseDay(browser.version);
  const age = released ? `, about ${formatAge(released, today)} old` : '';
  const words = `${browser.version} (${where})${age}`;
  const old = released && today.getTime() - released.getTime() > OLD_MONTHS * 30.4 * 24 * 3600e3;
  const newer = browser.origin === 'bundled' && isNewer(newest, browser);
  if (newer) return note('browser', words, '--browser system takes the newer one of this machine.');
  if (old) return note('browser', words, `Visitors have newer ones: ${getUpdate(browser)}.`);
  return good('browser', words);
}

function getUpdate({ origin }: BrowserFact): string {
  return origin === 'bundled'
    ? 'bring Mivket up to date, or install one and use --browser system'
    : 'bring it up to date';
}

function isNewer(a: BrowserFact, b: BrowserFact): boolean {
  const [one, other] = [a, b].map(({ version }) => getMajor(version ?? '') ?? 0);
  return one! > other!;
}

function judgeStart({ start }: MachineFacts): Diagnosis {
  if (start.fault === null) return good('start', `an audit uses ${start.path}; it starts`);
  return bad('start', start.fault, getCure(start.fault));
}

function getCure(fault: string): string {
  if (/sandbox|namespace/i.test(fault))
    return 'Let ordinary users make namespaces (kernel.unprivileged_userns_clone=1, kernel.apparmor_restrict_unprivileged_userns=0), or use a browser that the system installed.';
  if (/GLIBC|ld-musl|not found|No such file/i.test(fault))
    return 'The browser that came along needs glibc 2.34 or newer; give an installed one with --browser system.';
  return 'Try another browser with --browser PATH or --browser system.';
}

function judgeSandbox({ start }: MachineFacts): Diagnosis | null {
  if (start.fault !== null) return null;
  if (start.sandboxed) return good('sandbox', 'on: code that breaks out of a page stays shut in');
  return note(
    'sandbox',
    'off, because you are root: snippets are hostile code',
    'Run as an ordinary user.',
  );
}

const EAST_ASIAN = ['Chinese', 'Japanese', 'Korean'];
const INSTALL_FONTS = 'Install fonts that have them, and use --browser system.';

function judgeFonts({ start, boxes, moreFonts }: MachineFacts): Diagnosis | null {
  if (boxes === null) return null;
  const own = start.origin === 'bundled';
  const whose = own
    ? 'those that came along: the same pixels on every Linux machine'
    : 'those of this machine: widths of text and pictures differ from other machines';
  if (boxes.length > 0) {
    const words = `${whose}; no letters for ${joinWords(boxes)}: they are empty boxes`;
    const known = own && boxes.every((one) => EAST_ASIAN.includes(one));
    return note('fonts', words, known ? `To have them: ${moreFonts}` : INSTALL_FONTS);
  }
  if (own) return good('fonts', whose);
  return note('fonts', whose, 'Compare pictures of one machine only.');
}

function judgeProxy({ proxy }: MachineFacts): Diagnosis[] {
  if (proxy.length === 0) return [good('proxy', 'none is set: hosts are asked directly')];
  const faulty = proxy.filter(({ fault }) => fault !== null);
  if (faulty.length > 0) {
    const words = faulty.map(({ name, value, fault }) => `${name}=${value} ${fault}`).join(', ');
    const tell = faulty.every(({ usable }) => usable) ? note : bad;
    return [tell('proxy', words, 'Correct it or unset it: hosts outside cannot be asked so.')];
  }
  const words = proxy.map(({ name, value }) => `${name}=${value}`).join(', ');
  return [note('proxy', `${words}: hosts outside are asked through it`, WEAKER_NAMES)];
}

const WEAKER_NAMES =
  'The proxy looks names up itself: that one leads to a private address is noticed only where this machine knows it too.';

function judgeLoopback({ loopback }: MachineFacts): Diagnosis {
  if (loopback === null) return good('ports', 'the loopback can be listened on');
  return bad(
    'ports',
    `127.0.0.1 cannot be listened on (${loopback})`,
    'All traffic of a snippet passes a port there: allow it.',
  );
}

function judgeFolder({ what, path, fault, freeBytes }: MachineFacts['folders'][number]): Diagnosis {
  if (fault !== null) return bad(what, `${path} cannot be written (${fault})`, 'Make it writable.');
  if (freeBytes !== null && freeBytes < LEAST_FREE)
    return note(what, `${path} has little room left`, 'Keep 500 MB free.');
  return good(what, path);
}

function judgeTrusted({ source, count, fault }: MachineFacts['trusted'][number]): Diagnosis {
  const item = 'certificates';
  if (fault !== null)
    return note(item, `${source} adds none (${fault})`, 'Name a file of certificates (PEM).');
  return good(item, `Node’s own, and ${countWords(count, 'certificate')} of ${source}`);
}

function judgeOld({ old }: MachineFacts): Diagnosis[] {
  if (old.length === 0) return [];
  const bytes = old.reduce((sum, one) => sum + one.bytes, 0);
  const names = joinWords(old.map(({ path }) => path));
  const words = `${countWords(old.length, 'folder')} of other versions, ${formatBytes(bytes)}: ${names}`;
  return [
    note('cache', words, '`mivket doctor --clean` removes what no other version here needs.'),
  ];
}
