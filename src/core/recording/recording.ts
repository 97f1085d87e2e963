import type { Exchange, Load } from './exchange.js';

/** What is asked of a recording. */
export interface Question {
  method: string;
  url: string;
  /** base64 of what is sent along; null for nothing. */
  body: string | null;
}

/** A recording made ready to answer: the same question in the same load gets the same answer. */
export class Recording {
  #byKey = new Map<string, Exchange[]>();
  #byPath = new Map<string, Exchange[]>();
  #hosts = new Map<string, Exchange[]>();

  constructor(exchanges: readonly Exchange[]) {
    for (const exchange of exchanges) {
      const url = new URL(exchange.url);
      add(this.#byKey, getQuestionKey(exchange), exchange);
      add(this.#byPath, getPathKey(exchange.method, url), exchange);
      add(this.#hosts, url.host, exchange);
    }
  }

  /** Whether a host (with its port where that is not the scheme's own) was asked for anything. */
  has(host: string): boolean {
    return this.#hosts.has(host);
  }

  /** How a host was refused as a whole; undefined where something of it came. */
  getRefusal(host: string): Exchange['refused'] | undefined {
    const known = this.#hosts.get(host) ?? [];
    const all = known.length > 0 && known.every(({ method }) => method === 'CONNECT');
    return all ? known[0]!.refused : undefined;
  }

  /**
   * The answer to the `nth` (from 0) such question of a load: that of the load itself, else of its
   * snippet, else of any. An address that differs only in values of its query (a time stamp, a
   * random number) is answered by the one most like it.
   */
  find(load: Load, nth: number, question: Question): Exchange | null {
    const same = this.#byKey.get(getQuestionKey({ ...question, requestBody: question.body }));
    const url = new URL(question.url);
    const known = same ?? getNearest(url, this.#byPath.get(getPathKey(question.method, url)) ?? []);
    const own = known.filter((one) => isSameLoad(one.load, load));
    const first = known.find((one) => one.load.snippet === load.snippet) ?? known[0];
    const series =
      own.length > 0 ? own : known.filter((one) => first && isSameLoad(one.load, first.load));
    return series[Math.min(nth, series.length - 1)] ?? null;
  }
}

/** What makes two requests the same question; the fragment stays with the browser. */
export function getQuestionKey({
  method,
  url,
  requestBody,
}: Pick<Exchange, 'method' | 'url' | 'requestBody'>): string {
  return `${method} ${url.replace(/#.*$/, '')} ${requestBody ?? ''}`;
}

function getPathKey(method: string, url: URL): string {
  const names = [...url.searchParams.keys()].sort();
  return `${method} ${url.origin}${url.pathname}?${names.join('&')}`;
}

/** Those with the most equal values in their query, of one address. */
function getNearest(url: URL, candidates: readonly Exchange[]): Exchange[] {
  const count = (one: Exchange) => {
    const other = new URL(one.url).searchParams;
    return [...url.searchParams].filter(([name, value]) => other.get(name) === value).length;
  };
  const most = Math.max(...candidates.map(count));
  const nearest = candidates.find((one) => count(one) === most);
  return candidates.filter((one) => one.url === nearest?.url);
}

function isSameLoad(a: Load, b: Load): boolean {
  return a.snippet === b.snippet && a.view === b.view;
}

function add<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const known = map.get(key);
  if (known) known.push(value);
  else map.set(key, [value]);
}
