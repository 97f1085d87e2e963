import { startProgram } from './program.js';

startProgram('worker');
