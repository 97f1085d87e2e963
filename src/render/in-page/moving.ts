/** More frames than this are not asked for one by one. */
const MOST = 200;

/**
 * How long a picture of several frames moves, by the browser's own account.
 * @param base64 its file
 * @returns seconds, null without an end; 0 where it does not move, or cannot be read
 */
export async function readLength(
  base64: string,
  type: string,
): Promise<{ seconds: number | null }> {
  const data = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
  const decoder = new ImageDecoder({ data, type });
  try {
    await decoder.tracks.ready;
    await decoder.completed;
    const track = decoder.tracks.selectedTrack;
    if (!track?.animated || track.frameCount < 2) return { seconds: 0 };
    if (!Number.isFinite(track.repetitionCount)) return { seconds: null };
    let micro = 0;
    const frames = Math.min(track.frameCount, MOST);
    for (let frameIndex = 0; frameIndex < frames; frameIndex++) {
      const { image } = await decoder.decode({ frameIndex });
      micro += image.duration ?? 0;
      image.close();
    }
    const all = (micro * track.frameCount) / frames;
    return { seconds: (all / 1e6) * (track.repetitionCount + 1) };
  } finally {
    decoder.close();
  }
}
