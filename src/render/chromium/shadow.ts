import type { Protocol } from 'devtools-protocol';
import type { Session } from './connection.js';

/**
 * Makes closed shadow roots known to the isolated world alone: found through the protocol, so that the
 * page's code cannot tell.
 */
export async function openClosedRoots(session: Session, context: number): Promise<void> {
  const { root } = await session.send('DOM.getDocument', { depth: -1, pierce: true });
  for (const backendNodeId of listClosedRoots(root)) {
    const { object } = await session.send('DOM.resolveNode', {
      backendNodeId,
      executionContextId: context,
    });
    await session.send('Runtime.callFunctionOn', {
      objectId: object.objectId!,
      functionDeclaration: 'function () { mivketNotebook.closedRoots.set(this.host, this); }',
      userGesture: false,
    });
  }
}

function listClosedRoots(root: Protocol.DOM.Node): number[] {
  const found: number[] = [];
  const waiting = [root];
  for (let node = waiting.pop(); node; node = waiting.pop()) {
    const roots = node.shadowRoots ?? [];
    found.push(
      ...roots
        .filter(({ shadowRootType }) => shadowRootType === 'closed')
        .map(({ backendNodeId }) => backendNodeId),
    );
    waiting.push(...roots, ...(node.children ?? []));
  }
  return found;
}
