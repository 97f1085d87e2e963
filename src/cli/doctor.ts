import { diagnose } from '../core/doctor/diagnose.js';
import { formatDiagnoses } from '../formats/diagnosis.js';
import { examineMachine } from '../render/examine.js';
import { makePaint } from './colours.js';
import { getTextWidth, write, type World } from './streams.js';

const CANNOT_RUN = 3;

/** Says what works on this machine, and what to do where it does not. Resolves to 0 where audits run. */
export async function doctor(
  { browser, color = true }: { browser?: string; color?: boolean },
  world: World,
): Promise<number> {
  const diagnoses = diagnose(await examineMachine(browser, world.env));
  const width = getTextWidth(world, 120);
  await write(world.stdout, formatDiagnoses(diagnoses, { paint: makePaint(world, color), width }));
  return diagnoses.some(({ state }) => state === 'bad') ? CANNOT_RUN : 0;
}
