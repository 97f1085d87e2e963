import type { FileType } from '../../facts/file-type.js';
import type { Evidence } from '../evidence.js';
import { flatMap } from '../lists.js';

/** Kinds of files that stay open for as long as somebody has something to say. */
const LINES: readonly FileType[] = ['stream', 'socket'];

/** The hosts that a line was opened to, or that let data wait: what comes over it later nobody has seen. */
export function listOpenLines(evidence: readonly Pick<Evidence, 'traffic'>[]): string[] {
  const open = flatMap(evidence, ({ traffic }) =>
    traffic.filter(
      ({ type, failed, refused, status, waited }) =>
        failed === null &&
        refused === null &&
        (LINES.includes(type) || (type === 'data' && status === null && waited === null)),
    ),
  );
  return [...new Set(open.map(({ host }) => host))].sort();
}
