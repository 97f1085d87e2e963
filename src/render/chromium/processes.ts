import { within } from '../bounds/limit.js';
import type { Connection } from './connection.js';

/** How long the browser may take to tell, ms. */
const TOLD = 1000;

/** The processor's time that each renderer has had so far, s, by its process; null where the browser does not tell. */
export async function getWork(connection: Connection): Promise<ReadonlyMap<number, number> | null> {
  const asking = connection.root.send('SystemInfo.getProcessInfo').catch(() => null);
  const told = await within(asking, TOLD);
  if (!told) return null;
  const renderers = told.processInfo.filter(({ type }) => type === 'renderer');
  return new Map(renderers.map(({ id, cpuTime }) => [id, cpuTime]));
}
