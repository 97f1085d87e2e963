import { diagnose } from '../core/doctor/diagnose.js';
import { formatDiagnoses } from '../formats/diagnosis.js';
import { examineMachine } from '../render/machine/examine.js';
import { exists } from '../render/machine/folder.js';
import { makePaint } from './colours.js';
import { getTextWidth, write, type World } from './streams.js';
import { PACKAGE } from '../run/version.js';

/** The options of `doctor`, as they were given. */
export interface DoctorOptions {
  browser?: string;
  /** Removes what versions before left. */
  clean?: boolean;
  color?: boolean;
}

const CANNOT_RUN = 3;
const MORE_FONTS = 'packages/fonts-cjk';

/** Says what works on this machine, and what to do where it does not. Resolves to 0 where audits run. */
export async function doctor(
  { browser, clean = false, color = true }: DoctorOptions,
  world: World,
): Promise<number> {
  const facts = await examineMachine(browser, world.env, clean);
  const diagnoses = diagnose({ ...facts, moreFonts: await getMoreFonts() });
  const width = getTextWidth(world, 120);
  await write(world.stdout, formatDiagnoses(diagnoses, { paint: makePaint(world, color), width }));
  return diagnoses.some(({ state }) => state === 'bad') ? CANNOT_RUN : 0;
}

/** In a checkout the package of more fonts lies beside; who installed Mivket has it from where that came. */
async function getMoreFonts(): Promise<string> {
  const inCheckout = await exists(new URL(MORE_FONTS, PACKAGE));
  return inCheckout
    ? `npm install --no-save ./${MORE_FONTS}`
    : 'npm install @mivket/fonts-cjk, beside Mivket';
}
