import type { Session } from './connection.js';

/**
 * The number, in the notebook of the page's isolated world, of the element that a frame stands in, be that in a
 * shadow root; null where it is none of this document.
 */
export async function findOwner(
  session: Session,
  context: number,
  frameId: string,
): Promise<number | null> {
  await session.send('DOM.enable');
  const owner = await session.send('DOM.getFrameOwner', { frameId }).catch(() => null);
  if (!owner) return null;
  const { object } = await session.send('DOM.resolveNode', {
    backendNodeId: owner.backendNodeId,
    executionContextId: context,
  });
  const { result } = await session.send('Runtime.callFunctionOn', {
    objectId: object.objectId!,
    functionDeclaration: 'function () { return mivketNotebook.idOf(this); }',
    returnByValue: true,
    userGesture: false,
  });
  return typeof result.value === 'number' ? result.value : null;
}
