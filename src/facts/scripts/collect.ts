import type { ScriptFact } from '../../core/evidence.js';
import { mapPresent } from '../../core/lists.js';
import { getAskers } from '../../render/collect/requests.js';
import type { Collector, Look } from '../collector.js';
import { locateCode, WRITTEN } from './locate.js';

export const collectScripts: Collector<'scripts'> = (look) => {
  const { hung, happened, reading, baseline } = look;
  // As they are by now: the page goes on.
  const windows = [...happened.windows];
  const navigations = [...happened.navigations];
  const downloads = [...happened.downloads];
  const console = [...happened.console];
  const { sounds = [], writers = [], waits = [], held = [], prints = 0 } = reading?.objects ?? {};
  // Here nobody prints: the page is told that it is about to be, and no more comes of it.
  const dialogs = [...happened.dialogs, ...(prints > 0 ? [{ kind: 'print', text: '' }] : [])];
  const isTold = happened.errors.length + happened.pleas.length > 0;
  const told = isTold ? collectTold(look) : NONE;
  const usual = new Set(baseline?.replaced);
  const replaced = (reading?.objects.replaced ?? []).filter(({ name }) => !usual.has(name));
  const opened = listOwn(look, reading?.raw.opened);
  const unmade = listOwn(look, reading?.raw.unmade);
  const acts = { dialogs, opened, unmade, windows, navigations, downloads };
  return { hung, ...acts, console, ...told, replaced, sounds, writers, waits, held };
};

type Told = Pick<ScriptFact, 'errors' | 'framed' | 'hostErrors' | 'devices'>;
const NONE: Told = { errors: [], framed: [], hostErrors: [], devices: [] };

/** What the snippet's code, and documents in its frames, raise and ask for: what the page's own does is left out. */
function collectTold(look: Look): Told {
  const { page, served, of, happened, baseline } = look;
  const askers = getAskers(page, served, of);
  const inFrames = new Set(
    mapPresent(page.requests.requests, ({ address, type, frame }) =>
      frame !== page.mainFrame || type === 'document' ? address : null,
    ),
  );
  const isFramed = (url: string) => url === WRITTEN || (url !== page.address && inFrames.has(url));
  const locate = locateCode(look, askers);
  const all = mapPresent(happened.errors, ({ how, text, calls }) => {
    const place = locate(calls);
    return place && { error: { how, text, ...place }, framed: isFramed(calls[0]!.url) };
  });
  const pick = (framed: boolean) =>
    mapPresent(all, (one) => (one.framed === framed ? one.error : null));
  const usual = new Set(baseline?.errors);
  const hostErrors = mapPresent(happened.errors, ({ how, text, calls }) => {
    const [first] = calls;
    if (!first || how === 'console' || usual.has(text)) return null;
    if (askers.findRunner(calls)?.to !== 'host') return null;
    return { how, text, from: null, address: first.url.slice(0, 300), line: first.line + 1 };
  });
  const devices = mapPresent(happened.pleas, ({ what, calls }) => {
    const place = locate(calls);
    return place && { what, ...place };
  });
  return { errors: pick(false), framed: pick(true), hostErrors, devices };
}

function listOwn({ parted }: Look, ids: readonly number[] = []): ScriptFact['opened'] {
  const own = (parted?.elements ?? []).filter(({ id }) => ids.includes(id));
  return own.map(({ tag, from, selector }) => ({ tag, from, selector }));
}
