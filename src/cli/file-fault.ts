/** Why a file or a folder could not be read, as the end of a sentence. */
export function explainFileFault(error: NodeJS.ErrnoException): string {
  if (error.code === 'ENOENT' || error.code === 'ENOTDIR') return 'does not exist';
  if (error.code === 'EACCES' || error.code === 'EPERM')
    return 'may not be read: permission denied';
  return `could not be read (${error.code ?? error.message})`;
}
