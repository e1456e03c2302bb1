/**
 * Draws so many cases of effects in which sound goes round and runs each: a second of sound, then nothing. Prints those
 * that grow, keep an offset or sound on after they said that they are silent, and leaves with 1 when there are any. npm
 * run check:decay [-- CASES [FIRST [EFFECT,EFFECT...]]]
 */
import { decayCase, decays, describeCase, readDecay, WITH_MEMORY } from '../src/core/accuracy/stability';

const [cases = '20000', first = '1', among = WITH_MEMORY.join(',')] = process.argv.slice(2);

let broken = 0;
const from = Number(first);
for (let number = from; number < from + Number(cases); number += 1) {
  const drawn = decayCase(number, among.split(','));
  const reading = readDecay(drawn);
  if (decays(reading)) continue;
  broken += 1;
  const { growthDb, offsetDb, afterSilentDb } = reading;
  process.stdout.write(
    `Case ${number}: grows by ${growthDb.toFixed(2)} dB, offset ${offsetDb.toFixed(1)} dB, after silence ${afterSilentDb.toFixed(1)} dB: ${describeCase(drawn)}\n`,
  );
}
process.stdout.write(`${cases} cases, ${broken} of them do not die away.\n`);
process.exitCode = broken > 0 ? 1 : 0;
