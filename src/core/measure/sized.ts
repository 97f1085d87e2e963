import type { Facts, FrameFact, MediaFact } from '../evidence.js';
import { isFramedPlayer } from './framed.js';

/** A frame or a film, as it is measured. */
export type Sized = (FrameFact | MediaFact) & {
  /** It plays film. */
  player: boolean;
};

/** The frames and films that are to be seen. */
export function listSized({ frames, media }: Pick<Facts, 'frames' | 'media'>): Sized[] {
  const found: Sized[] = [
    ...frames.map((frame) => ({ ...frame, player: isFramedPlayer(frame) })),
    ...media.filter(({ tag }) => tag === 'video').map((one) => ({ ...one, player: true })),
  ];
  return found.filter(({ shown, box }) => shown && box.width > 0);
}

/** A width in px that nothing relative bounds. */
export function isFixed({ style: { width, maxWidth } }: Pick<Sized, 'style'>): boolean {
  const bounded = /%|vw|vi|min\(|max\(|clamp\(|calc\(/.test(maxWidth);
  return /^[\d.]+px$/.test(width) && !bounded;
}
