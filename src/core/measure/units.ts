const BYTES: Record<string, number> = {
  '': 1,
  b: 1,
  kb: 1e3,
  mb: 1e6,
  gb: 1e9,
  kib: 1024,
  mib: 1024 ** 2,
  gib: 1024 ** 3,
};

/** Bytes of a text such as `150kB` or `1.5 MiB`, or null. */
export function parseBytes(text: string | number): number | null {
  const match = /^([\d.]+)\s*([a-z]*)$/i.exec(String(text).trim());
  const unit = match && BYTES[match[2]!.toLowerCase()];
  return match && unit && Number.isFinite(Number(match[1]))
    ? Math.round(Number(match[1]) * unit)
    : null;
}

/** Milliseconds of a text such as `200ms` or `1.5s`, or null. */
export function parseTime(text: string | number): number | null {
  const match = /^([\d.]+)\s*(ms|s)?$/i.exec(String(text).trim());
  if (!match || !Number.isFinite(Number(match[1]))) return null;
  return Number(match[1]) * (match[2]?.toLowerCase() === 's' ? 1000 : 1);
}

/** Pixels of a text such as `12px` or `12`, or null. */
export function parsePixels(text: string | number): number | null {
  const match = /^([\d.]+)\s*(px)?$/i.exec(String(text).trim());
  return match && Number.isFinite(Number(match[1])) ? Number(match[1]) : null;
}

/** Bytes for a reader: `812 B`, `152.4 kB`, `1.3 MB`. */
export function formatBytes(bytes: number): string {
  if (bytes < 1000) return `${bytes} B`;
  const [size, unit] = bytes < 999_950 ? [bytes / 1e3, 'kB'] : [bytes / 1e6, 'MB'];
  return `${size.toFixed(1).replace(/\.0$/, '')} ${unit}`;
}

/** Bytes on the wire for a reader: in hundreds at the least, since headers are never packed quite the same. */
export function formatWire(bytes: number): string {
  return bytes < 1000 ? 'under 1 kB' : formatBytes(bytes);
}

/** Time for a reader, as exactly as it is the same in another load: `70 ms`, `480 ms`, `1.2 s`. */
export function formatTime(ms: number): string {
  return ms < 995 ? `${Math.round(ms / 10) * 10} ms` : `${Math.round(ms / 100) / 10} s`;
}

/** Pixels for a reader: whole ones. */
export function formatPixels(pixels: number): string {
  return `${Math.round(pixels)} px`;
}

/** The size of letters for a reader: to a tenth of a px. */
export function formatSize(pixels: number): string {
  return `${Math.round(pixels * 10) / 10} px`;
}
