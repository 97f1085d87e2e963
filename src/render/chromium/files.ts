import type { Protocol } from 'devtools-protocol';
import { flatMap } from '../../core/lists.js';
import type { PageFile, PictureFile } from '../page/browser-page.js';
import type { Session } from './connection.js';

/** So many scripts and sheets of a page are read, each of so many bytes at most. */
const MOST_FILES = 60;
const MOST_BYTES = 2_000_000;

/** The scripts and sheets of a page and of the frames in its process, as it has loaded them. */
export async function listFiles(session: Session): Promise<PageFile[]> {
  const { frameTree } = await session.send('Page.getResourceTree');
  const wanted = listWanted(frameTree).slice(0, MOST_FILES);
  const read = wanted.map(async ({ frameId, url }): Promise<PageFile[]> => {
    const content = await session.send('Page.getResourceContent', { frameId, url });
    return content.base64Encoded ? [] : [{ address: url, text: content.content }];
  });
  // What is no longer kept by the browser is not told.
  const found = await Promise.allSettled(read);
  return flatMap(found, (one) => (one.status === 'fulfilled' ? one.value : []));
}

interface Wanted {
  frameId: string;
  url: string;
}

function listWanted({
  frame,
  resources,
  childFrames = [],
}: Protocol.Page.FrameResourceTree): Wanted[] {
  const own = resources.filter(
    ({ type, contentSize = 0 }) => /^(Script|Stylesheet)$/.test(type) && contentSize <= MOST_BYTES,
  );
  const files = own.map(({ url }) => ({ frameId: frame.id, url }));
  return [...files, ...flatMap(childFrames, listWanted)];
}

/** How the files of pictures begin, as base64 has it. */
const TYPES: readonly [sign: string, type: string][] = [
  ['R0lGOD', 'image/gif'],
  ['iVBORw', 'image/png'],
  ['UklGR', 'image/webp'],
];

/** The file of a picture, as the page's own document has loaded it; null for one that is not kept, or of no known type. */
export async function readPictureFile(
  session: Session,
  frameId: string,
  url: string,
): Promise<PictureFile | null> {
  const asked = { frameId, url };
  const { base64Encoded, content } = await session.send('Page.getResourceContent', asked);
  if (!base64Encoded) return null;
  const type = TYPES.find(([sign]) => content.startsWith(sign))?.[1] ?? 'image/avif';
  return { type, base64: content };
}
