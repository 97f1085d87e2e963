import { parentPort, workerData } from 'node:worker_threads';
import type { GateCertificate } from './certificate.js';
import { Gate } from './gate.js';
import type { PageSource } from './page-server.js';
import type { GateRules } from './route.js';

/** What the main thread asks of the gates' thread. */
export type GateCall =
  | { call: 'open'; gate: number; rules: GateRules }
  | { call: 'page'; gate: number; page: PageSource }
  | { call: 'refusals'; gate: number }
  | { call: 'close'; gate: number };

const gates = new Map<number, Gate>();
const { certificate } = workerData as { certificate: GateCertificate };

parentPort!.on('message', ({ id, ...call }: GateCall & { id: number }) => {
  perform(call).then(
    (result) => parentPort!.postMessage({ id, result }),
    (error: unknown) => parentPort!.postMessage({ id, error: String(error) }),
  );
});

async function perform(call: GateCall): Promise<unknown> {
  if (call.call === 'open') {
    const gate = new Gate(call.rules, certificate);
    gates.set(call.gate, gate);
    return gate.open();
  }
  const gate = gates.get(call.gate);
  if (!gate) return null;
  if (call.call === 'page') return gate.setPage(call.page);
  if (call.call === 'refusals') return gate.takeRefusals();
  gates.delete(call.gate);
  return gate.close();
}
