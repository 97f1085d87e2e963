import { promisify } from 'node:util';
import {
  brotliCompress,
  brotliDecompress,
  constants,
  deflate,
  gzip,
  inflate,
  unzip,
} from 'node:zlib';

/** What an answer may unpack to, bytes; a bomb is not unpacked. */
const LARGEST = 100_000_000;
const DECODERS: Record<string, (bytes: Buffer) => Promise<Buffer>> = {
  gzip: (bytes) => promisify(unzip)(bytes, { maxOutputLength: LARGEST }),
  'x-gzip': (bytes) => promisify(unzip)(bytes, { maxOutputLength: LARGEST }),
  deflate: (bytes) => promisify(inflate)(bytes, { maxOutputLength: LARGEST }),
  br: (bytes) => promisify(brotliDecompress)(bytes, { maxOutputLength: LARGEST }),
};
const BROTLI = { params: { [constants.BROTLI_PARAM_QUALITY]: 5 } };
const ENCODERS: Record<string, (bytes: Buffer) => Promise<Buffer>> = {
  gzip: (bytes) => promisify(gzip)(bytes),
  'x-gzip': (bytes) => promisify(gzip)(bytes),
  deflate: (bytes) => promisify(deflate)(bytes),
  br: (bytes) => promisify(brotliCompress)(bytes, BROTLI),
};

/** Takes a content coding off; null where it is unknown, broken or a bomb. */
export async function decode(bytes: Buffer, coding: string): Promise<Buffer | null> {
  const decoder = DECODERS[coding.trim().toLowerCase()];
  return decoder ? decoder(bytes).catch(() => null) : null;
}

/** Puts a content coding on; null where it is unknown. */
export async function encode(bytes: Buffer, coding: string): Promise<Buffer | null> {
  const encoder = ENCODERS[coding.trim().toLowerCase()];
  return encoder ? encoder(bytes) : null;
}
