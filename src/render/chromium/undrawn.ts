import type { Connection } from './connection.js';

/** What is drawn like a character that no font has, no font here has either. */
export async function listUndrawn(
  connection: Connection,
  samples: Record<string, string>,
): Promise<string[]> {
  const { targetId } = await connection.root.send('Target.createTarget', { url: 'about:blank' });
  const attached = await connection.root.send('Target.attachToTarget', { targetId, flatten: true });
  const { result } = await connection.session(attached.sessionId).send('Runtime.evaluate', {
    expression: `(${findMissing.toString()})(${JSON.stringify(samples)})`,
    returnByValue: true,
  });
  return result.value as string[];
}

/** Runs in a page of our own. */
function findMissing(samples: Record<string, string>): string[] {
  const context = document.createElement('canvas').getContext('2d', { willReadFrequently: true })!;
  context.font = '40px sans-serif';
  const draw = (text: string) => {
    context.clearRect(0, 0, 100, 100);
    context.fillText(text, 10, 60);
    return context.getImageData(0, 0, 100, 100).data.join();
  };
  // Private use, and unassigned: drawn as the empty box.
  const boxes = new Set(['\u{10fffd}', '\u{e0fff}', '\uf8fe'].map(draw));
  return Object.keys(samples).filter((name) => boxes.has(draw(samples[name]!)));
}
