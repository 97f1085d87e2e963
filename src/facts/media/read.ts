import type { ObjectReader } from '../../render/in-page/object-reader.js';
import { hasStarted, readRatio } from '../../render/in-page/films.js';
import { tryRoom } from '../../render/in-page/room.js';
import { isInView } from '../../render/in-page/shared.js';
import type { OfElement } from '../common.js';
import type { MediaFact } from './fact.js';

export type RawMedium = Omit<MediaFact, OfElement>;

/** A film without a size (CSS 2, 10.3.2). */
const UNSIZED = { width: 300, height: 150 };

const ERRORS = ['', 'aborted', 'network', 'decode', 'source not supported'];

export const readMedium: ObjectReader<RawMedium> = {
  fits: (real) => real instanceof HTMLMediaElement,
  read(real, _node, book) {
    const node = real as HTMLMediaElement;
    const video = node instanceof HTMLVideoElement ? node : null;
    // Not every engine tells of what it decoded.
    const { webkitAudioDecodedByteCount: decoded = 0 } = node as {
      webkitAudioDecodedByteCount?: number;
    };
    const ratio = readRatio(video);
    return {
      id: book.idOf(node),
      tag: video ? 'video' : 'audio',
      address: node.currentSrc,
      autoplay: node.autoplay,
      asksForSound: book.asking.has(node),
      muted: node.muted,
      volume: node.volume,
      controls: node.controls,
      loop: node.loop,
      inline: node.hasAttribute('playsinline'),
      poster: Boolean(video?.getAttribute('poster')?.trim()),
      backed: getComputedStyle(node).backgroundImage !== 'none',
      paused: node.paused,
      started: hasStarted(node),
      inView: isInView(node),
      readyState: node.readyState,
      networkState: node.networkState,
      error: node.error ? `${ERRORS[node.error.code]}: ${node.error.message}` : null,
      frames: video?.getVideoPlaybackQuality().totalVideoFrames ?? 0,
      duration: Number.isFinite(node.duration) ? node.duration : null,
      ratio,
      pixels: ratio === null ? null : { width: video!.videoWidth, height: video!.videoHeight },
      pushes: ratio === null ? 0 : tryRoom(node, UNSIZED),
      fit: getComputedStyle(node).objectFit,
      sound: decoded > 0 ? true : null,
    };
  },
};
