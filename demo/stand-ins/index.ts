import type { AddressInfo } from 'node:net';
import { serve, type ServerType } from '@hono/node-server';
import { Hono } from 'hono';
import { compress } from 'hono/compress';
import { booking } from './booking.js';
import { counter } from './counter.js';
import { letter } from './letter.js';
import { map } from './map.js';
import { player } from './player.js';
import { rootcellar } from './rootcellar.js';

/** The small vendor that stands in for a host, by the last two parts of its name. */
const VENDORS: Record<string, Hono> = {
  'loam.example': player,
  'fernmap.example': map,
  'trellis.example': booking,
  'tally.example': counter,
  'tallyroot.example': counter,
  'rootcellar.example': rootcellar,
  'seedletter.example': letter,
};

/** The patterns of all hosts that have a stand-in, as a house file's `reroute` names them. */
export const HOSTS = Object.keys(VENDORS).flatMap((name) => [name, `*.${name}`]);

/** Running stand-ins. */
export interface StandIns {
  /** The origin to reroute their hosts to. */
  origin: string;
  close(): Promise<void>;
}

/**
 * Starts all stand-ins in one server on loopback; a request is for the vendor its Host header names.
 * @param port 0 for any free one
 */
export async function startStandIns(port = 0): Promise<StandIns> {
  const app = new Hono();
  app.use(compress());
  app.all('*', (context) => {
    const host = (context.req.header('host') ?? '').replace(/:\d+$/, '');
    const vendor = VENDORS[host.split('.').slice(-2).join('.')];
    return vendor ? vendor.fetch(context.req.raw) : context.text(`No stand-in for ${host}`, 404);
  });
  const server = await listen(app, port);
  const { port: taken } = server.address() as AddressInfo;
  return {
    origin: `http://127.0.0.1:${taken}`,
    close: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        if ('closeAllConnections' in server) server.closeAllConnections();
      }),
  };
}

function listen(app: Hono, port: number): Promise<ServerType> {
  return new Promise((resolve, reject) => {
    const server = serve({ fetch: app.fetch, port, hostname: '127.0.0.1' });
    server.once('listening', () => resolve(server));
    server.once('error', reject);
  });
}
