import type { ScriptFact } from '../../core/evidence.js';
import { mapPresent } from '../../core/lists.js';
import { getAskers } from '../../render/collect/requests.js';
import type { Collector, Look } from '../collector.js';

export const collectScripts: Collector<'scripts'> = (look) => {
  const { hung, happened, reading } = look;
  // As they are by now: the page goes on.
  const windows = [...happened.windows];
  const navigations = [...happened.navigations];
  const downloads = [...happened.downloads];
  const console = [...happened.console];
  const { sounds = [], writers = [], waits = [], held = [], prints = 0 } = reading?.objects ?? {};
  // Here nobody prints: the page is told that it is about to be, and no more comes of it.
  const dialogs = [...happened.dialogs, ...(prints > 0 ? [{ kind: 'print', text: '' }] : [])];
  const none = { errors: [], framed: [] };
  const { errors, framed } = happened.errors.length > 0 ? collectErrors(look) : none;
  const opened = listOwn(look, reading?.raw.opened);
  const unmade = listOwn(look, reading?.raw.unmade);
  const acts = { dialogs, opened, unmade, windows, navigations, downloads };
  return { hung, ...acts, console, errors, framed, sounds, writers, waits, held };
};

type Told = ScriptFact['errors'];

/** Those of the snippet's code, and of documents in its frames: what the page's own raises is left out. */
function collectErrors({ page, served, of, happened }: Look): { errors: Told; framed: Told } {
  const askers = getAskers(page, served, of);
  const inFrames = new Set(
    mapPresent(page.requests.requests, ({ address, type, frame }) =>
      frame !== page.mainFrame || type === 'document' ? address : null,
    ),
  );
  const isFramed = (url: string) => url === WRITTEN || (url !== page.address && inFrames.has(url));
  const all = mapPresent(happened.errors, ({ how, text, calls }) => {
    const [first] = calls;
    if (!first) return null;
    const owner = askers.findRunner(calls);
    const isOwn = owner?.to === 'snippet' && owner.snippet === of;
    if (!isOwn && first.url !== WRITTEN) return null;
    const inPage = first.url === page.address;
    const error = {
      ...{ how, text, from: isOwn ? owner.from : null },
      address: inPage ? null : first.url.slice(0, 300),
      line: inPage ? null : first.line + 1,
    };
    return { error, framed: isFramed(first.url) };
  });
  const pick = (framed: boolean) =>
    mapPresent(all, (one) => (one.framed === framed ? one.error : null));
  return { errors: pick(false), framed: pick(true) };
}

/** A document that is written on its frame (HTML, 4.8.5: srcdoc). */
const WRITTEN = 'about:srcdoc';

function listOwn({ parted }: Look, ids: readonly number[] = []): ScriptFact['opened'] {
  const own = (parted?.elements ?? []).filter(({ id }) => ids.includes(id));
  return own.map(({ tag, from, selector }) => ({ tag, from, selector }));
}
