/** What code has stored under the page's own origin, but for cookies. */
export interface StoredHere {
  host: string;
  things: { kind: 'local' | 'session' | 'database' | 'cache'; name: string }[];
}

/** More of a kind are not listed. */
const MOST = 50;

/** Asked of the page and of each frame: null where it has no origin to store anything under. */
export async function readStored(): Promise<StoredHere | null> {
  const { hostname: host } = location;
  if (host === '') return null;
  const [databases, caches] = await Promise.all([listDatabases(), listCaches()]);
  const things: StoredHere['things'] = [
    ...listKeys(() => localStorage).map((name) => ({ kind: 'local' as const, name })),
    ...listKeys(() => sessionStorage).map((name) => ({ kind: 'session' as const, name })),
    ...databases.map((name) => ({ kind: 'database' as const, name })),
    ...caches.map((name) => ({ kind: 'cache' as const, name })),
  ];
  return { host, things };
}

/** A document without an origin of its own may not even ask. */
function listKeys(get: () => Storage): string[] {
  try {
    const storage = get();
    return Array.from({ length: Math.min(storage.length, MOST) }, (_, i) => storage.key(i) ?? '');
  } catch {
    return [];
  }
}

async function listDatabases(): Promise<string[]> {
  try {
    const all = await indexedDB.databases();
    return all.slice(0, MOST).map(({ name }) => name ?? '');
  } catch {
    return [];
  }
}

async function listCaches(): Promise<string[]> {
  try {
    return (await caches.keys()).slice(0, MOST);
  } catch {
    return [];
  }
}
