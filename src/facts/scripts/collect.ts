import type { ScriptFact } from '../../core/evidence.js';
import { mapPresent } from '../../core/lists.js';
import { getAskers } from '../../render/collect/requests.js';
import type { Collector, Look } from '../collector.js';

export const collectScripts: Collector<'scripts'> = (look) => {
  const { hung, happened, reading } = look;
  // As they are by now: the page goes on.
  const dialogs = [...happened.dialogs];
  const windows = [...happened.windows];
  const navigations = [...happened.navigations];
  const downloads = [...happened.downloads];
  const console = [...happened.console];
  const { sounds = [], writers = [], waits = [] } = reading?.objects ?? {};
  const errors = happened.errors.length > 0 ? collectErrors(look) : [];
  const opened = listOpened(look);
  const acts = { dialogs, opened, windows, navigations, downloads };
  return { hung, ...acts, console, errors, sounds, writers, waits };
};

/** Those of the snippet's code: what the page's own, or a document in a frame, raises is left out. */
function collectErrors({ page, served, of, happened }: Look): ScriptFact['errors'] {
  const askers = getAskers(page, served, of);
  const framed = new Set(
    mapPresent(page.requests.requests, ({ address, type, frame }) =>
      frame !== page.mainFrame || type === 'document' ? address : null,
    ),
  );
  return mapPresent(happened.errors, ({ how, text, calls }) => {
    const [first] = calls;
    if (!first || (first.url !== page.address && framed.has(first.url))) return null;
    const owner = askers.findRunner(calls);
    if (owner?.to !== 'snippet' || owner.snippet !== of) return null;
    const inPage = first.url === page.address;
    return {
      ...{ how, text, from: owner.from },
      address: inPage ? null : first.url.slice(0, 300),
      line: inPage ? null : first.line + 1,
    };
  });
}

function listOpened({ parted, reading }: Look): ScriptFact['opened'] {
  const opened = new Set(reading?.raw.opened);
  const own = (parted?.elements ?? []).filter(({ id }) => opened.has(id));
  return own.map(({ tag, from, selector }) => ({ tag, from, selector }));
}
