import type { PageCalls } from '../reader/calls.js';
import { getReaderScript } from '../page-scripts.js';
import { patiently } from '../bounds/patience.js';
import type { FrameAnswer, PageAnswer, PageCall } from '../page/browser-page.js';
import { ProtocolError, type Session } from './connection.js';

const WORLD = 'mivket';

/** Where code of ours stands in one document. */
interface World {
  session: Session;
  context: number;
}

/** The isolated worlds of a page and its frames, in which the page's code cannot see ours. */
export class Worlds {
  #byFrame = new Map<string, World>();

  /** Has our code stand in every document of a session, from its start on. Call it before the target runs. */
  follow(session: Session): void {
    session.on('Runtime.executionContextCreated', ({ context }) => {
      const { frameId } = (context.auxData ?? {}) as { frameId?: string };
      if (context.name === WORLD && frameId !== undefined)
        this.#byFrame.set(frameId, { session, context: context.id });
    });
    session.on('Page.frameDetached', ({ frameId, reason }) => {
      // Swapped into a process of its own, it has a session of its own.
      if (reason === 'remove') this.#byFrame.delete(frameId);
    });
    session.onEnd(() => {
      for (const [frame, world] of this.#byFrame)
        if (world.session === session) this.#byFrame.delete(frame);
    });
    session.tell('Page.addScriptToEvaluateOnNewDocument', {
      source: getReaderScript(),
      worldName: WORLD,
      runImmediately: true,
    });
  }

  /** @throws ProtocolError where the frame has no document to read */
  get(frame: string): World {
    const world = this.#byFrame.get(frame);
    if (!world) throw new ProtocolError('the page has no document to read');
    return world;
  }

  /** What code in the page's own world tells the isolated one by, as that world has it; null where there is none. */
  async findChannel(frame: string): Promise<string | null> {
    const { session, context } = this.get(frame);
    const expression = 'mivketNotebook.channel';
    const asked = { expression, contextId: context, userGesture: false };
    const { objectId } = (await session.send('Runtime.evaluate', asked)).result;
    if (objectId === undefined) return null;
    const { backendNodeId } = (await session.send('DOM.describeNode', { objectId })).node;
    const { object } = await session.send('DOM.resolveNode', { backendNodeId });
    return object.objectId ?? null;
  }

  /** All frames whose documents can be read. */
  get frames(): string[] {
    return [...this.#byFrame.keys()];
  }

  /** Has a call answered in frames; those that do not answer within `ms` are left out. */
  async callAll<N extends PageCall>(
    frames: readonly string[],
    ms: number,
    name: N,
    args: Parameters<PageCalls[N]>,
  ): Promise<FrameAnswer<PageAnswer<N>>[]> {
    const answers = frames.map(async (frame) => {
      const answer = await patiently(this.call(frame, name, args), ms).catch(() => null);
      return answer === null ? [] : [{ frame, answer: answer as PageAnswer<N> }];
    });
    return (await Promise.all(answers)).flat();
  }

  /** Has a call answered in a frame, without giving it a user's gesture. */
  async call<N extends PageCall>(
    frame: string,
    name: N,
    args: Parameters<PageCalls[N]>,
  ): Promise<PageAnswer<N>> {
    const { session, context } = this.get(frame);
    const { result, exceptionDetails } = await session.send('Runtime.evaluate', {
      expression: `mivketCalls.${name}(...${JSON.stringify(args)})`,
      contextId: context,
      returnByValue: true,
      awaitPromise: true,
      userGesture: false,
    });
    if (exceptionDetails)
      throw new ProtocolError(exceptionDetails.exception?.description ?? exceptionDetails.text);
    return result.value as PageAnswer<N>;
  }
}
