import type { AddressInfo, Server } from 'node:net';

/** Opens a server on a free port of the loopback; resolves to the port. */
export async function listen(server: Server): Promise<number> {
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return (server.address() as AddressInfo).port;
}
