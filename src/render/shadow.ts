import type { Protocol } from 'devtools-protocol';
import type { Tab } from './tab.js';

/**
 * Lets the reading functions see into closed shadow roots: found through the protocol, and made known
 * to the isolated world alone, so that the page's code cannot tell.
 */
export async function openClosedRoots(tab: Tab): Promise<void> {
  const { session } = tab;
  const { root } = await session.send('DOM.getDocument', { depth: -1, pierce: true });
  const world = tab.world;
  for (const backendNodeId of listClosedRoots(root)) {
    const { object } = await session.send('DOM.resolveNode', {
      backendNodeId,
      executionContextId: world,
    });
    await session.send('Runtime.callFunctionOn', {
      objectId: object.objectId!,
      functionDeclaration: 'function () { mivketNotebook.closedRoots.set(this.host, this); }',
      userGesture: false,
    });
  }
  if (!tab.traced) session.tell('DOM.disable');
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
