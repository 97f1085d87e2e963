import { putIn, runPutIn, type PutIn } from '../in-page/put-in.js';
import type { Session } from './connection.js';
import type { Worlds } from './worlds.js';

/** Puts markup into a page that stands, and has it noted before any of its scripts runs. */
export async function layIn(
  session: Session,
  worlds: Worlds,
  frame: string,
  { scripts, ...part }: PutIn,
): Promise<void> {
  const expression = `(${putIn.toString()})(${JSON.stringify(part)})`;
  const { result } = await session.send('Runtime.evaluate', { expression, userGesture: false });
  await worlds.call(frame, 'noteLate', [part.slot]);
  const root = result.objectId;
  if (!scripts || root === undefined) return;
  const objectId = await worlds.findChannel(frame);
  if (objectId === null) return;
  await session.send('Runtime.callFunctionOn', {
    objectId,
    functionDeclaration: runPutIn.toString(),
    arguments: [{ objectId: root }],
    userGesture: false,
  });
}
