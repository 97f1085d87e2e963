import { formatWire } from '../core/measure/units.js';
import type { SnippetReport } from '../core/run.js';
import { countWords } from '../core/words/list.js';
import { cleanLine } from './clean.js';

/** So many hosts can be told apart; the rest is one bar. */
const MOST = 12;
/** So much of a host's name has room. */
const LONG = 30;

/** How much comes from a host. */
export interface WeightBar {
  name: string;
  /** Bytes over the wire. */
  value: number;
  said: string;
}

/** Whether there is anything to draw. */
export function hasWeights({ contacts }: Pick<SnippetReport, 'contacts'>): boolean {
  return listWeights(contacts).length > 1;
}

/** The heaviest first. */
export function listWeights(contacts: SnippetReport['contacts']): WeightBar[] {
  const heavy = contacts.filter(({ wire }) => wire > 0).sort((a, b) => b.wire - a.wire);
  const [shown, rest] = [heavy.slice(0, MOST), heavy.slice(MOST)];
  const toBar = (name: string, value: number) => ({ name, value, said: formatWire(value) });
  const bars = shown.map(({ host, wire }) => toBar(shortenHost(cleanLine(host)), wire));
  const more = rest.reduce((sum, { wire }) => sum + wire, 0);
  return rest.length > 0 ? [...bars, toBar(`${countWords(rest.length, 'more host')}`, more)] : bars;
}

/** Its end says whose it is. */
function shortenHost(host: string): string {
  return host.length > LONG ? `…${host.slice(1 - LONG)}` : host;
}
