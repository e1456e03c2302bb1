import type { EffectImplementation } from './implementation';
import { braidImplementation } from './braid/implementation';
import { chorusImplementation } from './chorus/implementation';
import { compressorImplementation } from './compressor/implementation';
import { convolverImplementation } from './convolver/implementation';
import { crushImplementation } from './crush/implementation';
import { doublingImplementation } from './doubling/implementation';
import { driveImplementation } from './drive/implementation';
import { echoImplementation } from './echo/implementation';
import { eqImplementation } from './eq/implementation';
import { filterImplementation } from './filter/implementation';
import { flangerImplementation } from './flanger/implementation';
import { gateImplementation } from './gate/implementation';
import { grainsImplementation } from './grains/implementation';
import { gritImplementation } from './grit/implementation';
import { limiterImplementation } from './limiter/implementation';
import { phaserImplementation } from './phaser/implementation';
import { pitchImplementation } from './pitch/implementation';
import { placerImplementation } from './placer/implementation';
import { reverbImplementation } from './reverb/implementation';
import { shifterImplementation } from './shifter/implementation';
import { sideDelayImplementation } from './sideDelay/implementation';
import { tapsImplementation } from './taps/implementation';
import { tremoloImplementation } from './tremolo/implementation';
import { utilityImplementation } from './utility/implementation';
import { widenerImplementation } from './widener/implementation';
import { widthImplementation } from './width/implementation';
import { stutterImplementation } from './stutter/implementation';
import { backwardsImplementation } from './backwards/implementation';
import { tapeStopImplementation } from './tapeStop/implementation';
import { reorderImplementation } from './reorder/implementation';
import { chopImplementation } from './chop/implementation';
import { slowMotionImplementation } from './slowMotion/implementation';
import { scrubImplementation } from './scrub/implementation';
import { cloudImplementation } from './cloud/implementation';

/** Processor and picture of each effect, by its id; a line here for a new one. */
const IMPLEMENTATIONS: Readonly<Record<string, EffectImplementation>> = {
  braid: braidImplementation,
  chorus: chorusImplementation,
  compressor: compressorImplementation,
  convolver: convolverImplementation,
  crush: crushImplementation,
  doubling: doublingImplementation,
  drive: driveImplementation,
  echo: echoImplementation,
  eq: eqImplementation,
  filter: filterImplementation,
  flanger: flangerImplementation,
  gate: gateImplementation,
  grains: grainsImplementation,
  grit: gritImplementation,
  limiter: limiterImplementation,
  phaser: phaserImplementation,
  pitch: pitchImplementation,
  placer: placerImplementation,
  reverb: reverbImplementation,
  shifter: shifterImplementation,
  sideDelay: sideDelayImplementation,
  taps: tapsImplementation,
  tremolo: tremoloImplementation,
  utility: utilityImplementation,
  widener: widenerImplementation,
  width: widthImplementation,
  stutter: stutterImplementation,
  backwards: backwardsImplementation,
  tapeStop: tapeStopImplementation,
  reorder: reorderImplementation,
  chop: chopImplementation,
  slowMotion: slowMotionImplementation,
  scrub: scrubImplementation,
  cloud: cloudImplementation,
};

/** @throws for an unknown id */
export function implementationOf(id: string): EffectImplementation {
  const found = Object.hasOwn(IMPLEMENTATIONS, id) ? IMPLEMENTATIONS[id] : undefined;
  if (!found) throw new Error(`There is no effect called "${id}".`);
  return found;
}
