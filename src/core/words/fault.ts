/** What the system means by its error codes, for people. */
const WORDS: Record<string, string> = {
  EACCES: 'permission denied',
  EPERM: 'permission denied',
  EROFS: 'the file system is read-only',
  ENOSPC: 'no room is left',
  EDQUOT: 'the quota is used up',
  EEXIST: 'a file is in the way',
  ENOENT: 'there is no such place',
  EFBIG: 'files may not be that large there',
  ENOTDIR: 'something on its path is no folder',
  EISDIR: 'it is a folder',
  ECONNREFUSED: 'connection refused',
  ECONNRESET: 'connection broken off',
  ETIMEDOUT: 'no answer in time',
  EHOSTUNREACH: 'no way there',
  ENETUNREACH: 'no way there',
  ENOTFOUND: 'its name is not known',
  EAI_AGAIN: 'its name could not be looked up',
  EMFILE: 'too many files are open',
};

/** Why a call of the system failed, in words; the first line of what it says where the code is rare. */
export function describeFault(error: unknown): string {
  const { code, message } = error as { code?: string; message?: string };
  return WORDS[code ?? ''] ?? code ?? (message ?? String(error)).split('\n')[0]!;
}
