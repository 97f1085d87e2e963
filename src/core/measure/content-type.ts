/** The media type that a Content-Type header names, without parameters, in lower case; null where it names none (RFC 9110, 8.3). */
export function readContentType(header: string | undefined): string | null {
  const type = header?.split(';')[0]!.trim().toLowerCase();
  return type ? type : null;
}
