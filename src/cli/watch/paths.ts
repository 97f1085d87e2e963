import { existsSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { badInput } from '../../core/errors.js';

/** The files and folders that inputs stand for: of a pattern the folder that it begins in. @throws ToolError `bad-input` */
export function listWatched(inputs: readonly string[], cwd: string): string[] {
  return inputs.map((input) => {
    if (input === '-' || /^https?:\/\//i.test(input))
      throw badInput(`\`watch\` looks at files and folders, which are saved: found ${input}.`);
    const path = resolve(cwd, input);
    if (existsSync(path)) return path;
    const [before = ''] = input.split(/[*?{[]/);
    return before === input ? path : resolve(cwd, before.endsWith('/') ? before : dirname(before));
  });
}
