import type * as Chunk from '../run.js';
import { startProgram } from './program.js';

export const { run } = startProgram('run') as typeof Chunk;
