import { badInput, ToolError } from '../core/errors.js';
import { decodeText } from '../core/intake/decode.js';
import type { Snippet } from '../core/snippet.js';
import type { FetchedPage } from '../render/fetch-page.js';
import type { Means } from './means.js';
import type { Plan } from './request.js';
import type { Faults } from './faults.js';

/**
 * The plan with the texts of the published pages in it. One that cannot be had is a fault, and the rest goes on;
 * aborted, the plan is as it was.
 * @throws ToolError `bad-input` where nothing at all is left to look at
 */
export async function takeInPages(
  plan: Plan,
  faults: Faults,
  means: Pick<Means, 'recordTo' | 'recording'> | null,
  signal: AbortSignal,
): Promise<Plan> {
  const { recordTo = null, recording = null } = means ?? {};
  if (plan.snippets.every(({ published }) => !published)) return plan;
  const { PageFetcher } = await import('../render/fetch-page.js');
  const { reroute } = plan.house;
  const { offline = false } = plan.request;
  const fetcher = await PageFetcher.open(
    { origin: null, reroute, offline },
    { recordTo: recordTo?.spool ?? null, recording: recording?.getExchanges() ?? null },
  );
  try {
    const taken: Snippet[] = [];
    for (const snippet of plan.snippets) {
      const { published } = snippet;
      const taking = published
        ? fetcher.fetch(published.address, signal).then((page) => takeIn(snippet, page))
        : Promise.resolve(snippet);
      const work = taking.then(
        (one) => void taken.push(one),
        (error: unknown) => {
          if (!signal.aborted) throw error;
        },
      );
      await faults.collect(work, `fetching ${snippet.name}`);
      if (signal.aborted) return plan;
    }
    if (taken.length === 0) throw faults.found[0]!;
    return { ...plan, snippets: taken };
  } finally {
    await fetcher.close();
  }
}

const MARKUP = /^(text\/html|application\/xhtml\+xml)\b/i;

function takeIn(snippet: Snippet, { address, status, headers, body }: FetchedPage): Snippet {
  const asked = snippet.published!.address;
  if (status >= 400) throw refuse(asked, `is answered with ${status}`);
  const type = headers['content-type'] ?? '';
  if (!MARKUP.test(type)) throw refuse(asked, `is ${type || 'of no type'}, and no HTML page`);
  const charset = /charset\s*=\s*"?([^\s;"]+)/i.exec(type)?.[1];
  const text = decodeText(body, charset);
  if (text === null) throw refuse(asked, 'is in an encoding that cannot be read');
  if (text.trim() === '') throw refuse(asked, 'is empty');
  return { ...snippet, text, published: { address, headers } };
}

function refuse(address: string, why: string): ToolError {
  return badInput(`${address} ${why}.`);
}
