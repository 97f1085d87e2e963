import { PNG } from 'pngjs';
import { addLight, toLinear } from '../core/measure/contrast.js';
import { RED, type Lights } from '../core/measure/flashing.js';

/** How light the pixels of a picture are, and which are of a saturated red. */
export function readLights(bytes: Buffer): Lights & { width: number; height: number } {
  const { width, height, data } = PNG.sync.read(bytes);
  const light = new Float32Array(width * height);
  const red = new Uint8Array(width * height);
  for (let i = 0; i < light.length; i++) {
    const [r, g, b] = [LINEAR[data[4 * i]!]!, LINEAR[data[4 * i + 1]!]!, LINEAR[data[4 * i + 2]!]!];
    light[i] = addLight(r, g, b);
    red[i] = getRedness(r, g, b);
  }
  return { light, red, width, height };
}

/** The light of each value: it is asked for a thousand times a frame. */
const LINEAR = Array.from({ length: 256 }, (_, value) => toLinear(value));

/** The share of red that makes it saturated (WCAG 2.2, red flash); and under which it is another colour. */
const SATURATED = 0.8;
const OTHER = 0.7;
/** What is darker has no colour. */
const DARK = 0.1;

function getRedness(r: number, g: number, b: number): number {
  const share = r / (r + g + b || 1);
  if (share >= SATURATED && r >= DARK) return RED.saturated;
  return share < OTHER || r < DARK / 2 ? RED.not : RED.nearly;
}
