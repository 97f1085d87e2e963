import type { CallFrame } from '../page/request-log.js';
import type { Session } from './connection.js';
import { listCalls } from './traffic.js';

/** From now on the browser keeps in mind what calls made each element. Before the page is loaded. */
export async function traceMakers(session: Session): Promise<void> {
  await session.send('DOM.enable');
  await session.send('DOM.setNodeStackTracesEnabled', { enable: true });
}

/** The calls that made an element, by its number in the notebook of an isolated world. */
export async function listMakers(
  session: Session,
  context: number,
  id: number,
): Promise<CallFrame[]> {
  const { result } = await session.send('Runtime.evaluate', {
    expression: `mivketNotebook.nodes.get(${id})`,
    contextId: context,
    userGesture: false,
  });
  if (!result.objectId) return [];
  const { nodeId } = await session.send('DOM.requestNode', { objectId: result.objectId });
  const { creation } = await session.send('DOM.getNodeStackTraces', { nodeId });
  return listCalls(creation);
}
