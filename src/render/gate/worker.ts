import { parentPort } from 'node:worker_threads';
import type { Exchange, Load } from '../../core/recording/exchange.js';
import { Recording } from '../../core/recording/recording.js';
import { makeCertificate } from './certificate.js';
import { Gate, type GateMeans } from './gate.js';
import type { PageSource } from './page-server.js';
import type { GateKey } from './key.js';
import { Recorder } from './recorder.js';
import type { GateRules } from './route.js';

/** What the gates' thread is to work with: plain data. */
export interface GateData {
  /** What the browser lets through. */
  key: GateKey;
  /** What it does not; null where nothing needs it. */
  distrusted: GateKey | null;
  /** Where exchanges are written, a line of JSON each; null where nothing is recorded. */
  recordTo: string | null;
  /** What alone may answer; null where nothing is replayed. */
  recording: readonly Exchange[] | null;
}

/** What the main thread asks of the gates' thread. */
export type GateCall =
  | { call: 'begin'; data: GateData }
  | { call: 'open'; gate: number; rules: GateRules; password: string | null }
  | { call: 'page'; gate: number; page: PageSource; load: Load }
  | { call: 'answer'; gate: number }
  | { call: 'log'; gate: number }
  | { call: 'close'; gate: number }
  | { call: 'finish' };

const gates = new Map<number, Gate>();
let making: Promise<GateMeans>;

parentPort!.on('message', ({ id, ...call }: GateCall & { id: number }) => {
  const answered = perform(call).then(
    (result) => parentPort!.postMessage({ id, result }),
    (error: unknown) => parentPort!.postMessage({ id, error: String(error) }),
  );
  // Of this thread alone.
  if (call.call === 'finish') void answered.then(() => process.exit());
});

async function perform(call: GateCall): Promise<unknown> {
  if (call.call === 'finish') return finish();
  if (call.call === 'begin') return void (making = makeMeans(call.data));
  if (call.call === 'open') {
    const gate = new Gate(call.rules, await making, call.password);
    gates.set(call.gate, gate);
    return gate.open();
  }
  const gate = gates.get(call.gate);
  if (!gate) return null;
  if (call.call === 'page') return gate.setPage(call.page, call.load);
  if (call.call === 'answer') return gate.endSilence();
  if (call.call === 'log') return gate.takeLog();
  gates.delete(call.gate);
  return gate.close();
}

/** Closes what is still open, and writes the recording to its end. */
async function finish(): Promise<void> {
  await Promise.all([...gates.values()].map((gate) => gate.close()));
  gates.clear();
  const { recorder } = await making;
  await recorder?.finish();
}

async function makeMeans({ key, distrusted, recordTo, recording }: GateData): Promise<GateMeans> {
  return {
    certificate: await makeCertificate(key),
    ...(distrusted && { distrusted: await makeCertificate(distrusted) }),
    ...(recordTo !== null && { recorder: new Recorder(recordTo) }),
    ...(recording && { recording: new Recording(recording) }),
  };
}
