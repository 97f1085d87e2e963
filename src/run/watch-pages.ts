import type { StoodText } from '../core/live/pieces.js';
import type { Render } from '../core/render.js';
import type { RunDocument } from '../core/run.js';
import { audit, type AuditOptions } from './audit.js';
import type { AuditEvent } from './events.js';
import type { Faults } from './faults.js';
import type { AuditRequest } from './request.js';

/** What was found in pages, what stood there, and what there are pictures of. */
export interface WatchedPages {
  document: RunDocument;
  /** What stood in each page, load by load; by the name of what is audited. */
  stood: ReadonlyMap<string, readonly (readonly StoodText[])[]>;
  pieces: readonly PiecesEvent[];
}

export type PiecesEvent = Extract<AuditEvent, { type: 'pieces' }>;

/** Audits pages, and takes down what stands in them. */
export async function watchPages(
  request: AuditRequest,
  options: AuditOptions,
  faults: Faults,
): Promise<WatchedPages> {
  const stood = new Map<string, (readonly StoodText[])[]>();
  const pieces: PiecesEvent[] = [];
  const run = audit(request, options);
  for await (const event of run) {
    if (event.type === 'fault') faults.add(event.error, '');
    if (event.type === 'pieces') pieces.push(event);
    if (event.type === 'standing') {
      const name = nameRendered(event.render);
      stood.set(name, [...(stood.get(name) ?? []), event.texts]);
    }
  }
  return { document: await run.document, stood, pieces };
}

/** What is audited in a render, where it is one. */
export function nameRendered({ snippets }: Render): string {
  return snippets[0]!.name;
}
