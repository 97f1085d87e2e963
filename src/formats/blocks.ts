import { getKind } from '../core/judge/causes.js';
import type { Cause, Finding, SnippetReport } from '../core/run.js';

/** One cause as it is told: its findings under the gravest, and the places that are alike. */
export interface Block {
  number: number;
  /** The gravest. */
  main: Finding;
  /** The other findings that the same change cures. */
  also: Finding[];
  cause: Cause;
  /** The same at other places, each by its gravest. */
  alike: Finding[];
}

/** A snippet's findings, gathered by their causes; what is alike at many places is told once. */
export function listBlocks({ findings, causes }: SnippetReport): Block[] {
  const byCause = new Map<number, Finding[]>();
  for (const finding of findings) {
    const known = byCause.get(finding.cause);
    if (known) known.push(finding);
    else byCause.set(finding.cause, [finding]);
  }
  const blocks: Block[] = [];
  let last = '';
  for (const cause of causes) {
    const members = byCause.get(cause.number) ?? [];
    const [main] = members;
    if (!main) continue;
    const kind = members.map(getKind).join();
    const before = blocks.at(-1);
    if (before && kind === last) before.alike.push(main);
    else
      blocks.push({
        number: cause.number,
        main,
        also: dropRepeated(members.slice(1), main.id),
        cause,
        alike: [],
      });
    last = kind;
  }
  return blocks;
}

/** Each finding once: what is seen at several pieces of one place is said once. */
function dropRepeated(findings: readonly Finding[], first: string): Finding[] {
  const known = new Set([first]);
  return findings.filter(({ id }) => !known.has(id) && known.add(id));
}
