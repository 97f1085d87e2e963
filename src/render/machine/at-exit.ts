/** What is done when the process ends, whatever ends it. */
const works = new Set<() => void>();

/**
 * Has something done when the process ends, at once and in one go; what was asked for last comes first.
 * @returns takes it back
 */
export function atExit(work: () => void): () => void {
  if (works.size === 0) process.on('exit', doAll);
  works.add(work);
  return () => {
    works.delete(work);
    if (works.size === 0) process.off('exit', doAll);
  };
}

function doAll(): void {
  for (const work of [...works].reverse()) work();
}
