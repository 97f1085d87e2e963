/** Where a sign stands in a file, the sign, and the type that it is of (WHATWG MIME Sniffing, 6.2). */
const SIGNS: readonly [at: number, sign: string, type: string][] = [
  [4, 'ftypqt  ', 'video/quicktime'],
  [4, 'ftypM4A ', 'audio/mp4'],
  [4, 'ftyp', 'video/mp4'],
  [4, 'moov', 'video/quicktime'],
  [0, 'OggS', 'application/ogg'],
  [0, 'ID3', 'audio/mpeg'],
  [0, '\xff\xfb', 'audio/mpeg'],
  [8, 'WAVE', 'audio/wav'],
  [8, 'AVI ', 'video/x-msvideo'],
  [0, 'fLaC', 'audio/flac'],
  [0, 'FLV\x01', 'video/x-flv'],
  [0, '#EXTM3U', 'application/vnd.apple.mpegurl'],
];

/** What WebM and Matroska begin with, and how far in they say which they are. */
const [EBML, FAR] = ['\x1a\x45\xdf\xa3', 64];

/** The type of film or sound that a file is by its first bytes; null for anything else. */
export function tellContainer(bytes: Uint8Array): string | null {
  const text = String.fromCharCode(...bytes.subarray(0, FAR));
  if (text.startsWith(EBML)) return text.includes('webm') ? 'video/webm' : 'video/x-matroska';
  return SIGNS.find(([at, sign]) => text.startsWith(sign, at))?.[2] ?? null;
}

/** The handler of a track of pictures (ISO/IEC 14496-12, 8.4.3). */
const PICTURES = Array.from('hdlr\0\0\0\0\0\0\0\0vide', (letter) => letter.charCodeAt(0));

/** Whether a piece of an MP4 file says that the film in it has pictures. */
export function tellsPictures(piece: Uint8Array): boolean {
  const [first = 0] = PICTURES;
  for (let at = piece.indexOf(first); at >= 0; at = piece.indexOf(first, at + 1))
    if (PICTURES.every((byte, i) => piece[at + i] === byte)) return true;
  return false;
}

/** Types that are one kind of file. */
const KINDS: readonly (readonly [name: string, pattern: RegExp])[] = [
  ['MP4', /^(video|audio)\/(mp4|x-m4[av]|m4[av])$/],
  ['WebM', /^(video|audio)\/webm$/],
  ['Ogg', /^((video|audio|application)\/ogg)$/],
  ['MP3', /^audio\/(mpeg|mp3|mpeg3|x-mpeg)$/],
  ['WAV', /^audio\/(x-)?(wav|wave|vnd\.wave)$/],
  ['FLAC', /^audio\/(x-)?flac$/],
  ['QuickTime', /^video\/quicktime$/],
  ['Matroska', /^(video|audio)\/(x-)?matroska$/],
  ['AVI', /^video\/(x-msvideo|avi|vnd\.avi)$/],
  ['Flash video', /^video\/x-flv$/],
  ['HLS', /^(application|audio)\/(vnd\.apple\.mpegurl|x-mpegurl|mpegurl)$/],
];

/** The kind of film or sound that a type names, parameters aside; null where it names none. */
export function nameContainer(type: string | null): string | null {
  const essence = (type ?? '').split(';')[0]!.trim().toLowerCase();
  return KINDS.find(([, pattern]) => pattern.test(essence))?.[0] ?? null;
}
