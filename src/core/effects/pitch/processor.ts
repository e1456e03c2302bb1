import type { StereoBlock } from '../../dsp/blocks';
import type { EffectProcessor } from '../define';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { GrainShift } from './grains';
import { pitchParams } from './params';
import { SpectrumShift, spectrumMemory } from './spectrum';
import { PitchSynchronousShift } from './pitchSynchronous';

const P = paramIndices(pitchParams);
const GRAINS = 1;
const FOLLOW = 1;
const LOWEST_RATIO = Math.pow(2, (pitchParams.semitones.min + pitchParams.cents.min / 100) / 12);

/** Shifts the pitch without changing the speed; the formants of a voice stay, or are shifted by an amount of their own. */
export class PitchProcessor extends Insert implements EffectProcessor {
  private readonly spectrum: SpectrumShift;
  private readonly grains: GrainShift;
  private readonly synchronous: PitchSynchronousShift;
  private byGrains = false;

  constructor(sampleRate: number) {
    super(sampleRate, spectrumMemory(sampleRate, LOWEST_RATIO) / sampleRate, 0.01);
    this.spectrum = new SpectrumShift(sampleRate);
    this.grains = new GrainShift(sampleRate);
    this.synchronous = new PitchSynchronousShift(sampleRate, this.grains.latency);
  }

  get latency(): number {
    return this.byGrains ? this.grains.latency : this.spectrum.latency;
  }

  reset(seconds: number, values: Float64Array): void {
    this.locate(seconds, values);
  }

  locate(_seconds: number, values: Float64Array): void {
    const ratio = ratioOf(values);
    this.spectrum.clear(ratio);
    this.grains.clear(ratio);
    this.synchronous.clear();
    this.byGrains = values[P.quality] === GRAINS;
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    const ratio = ratioOf(values);
    const byGrains = values[P.quality] === GRAINS;
    if (byGrains !== this.byGrains) {
      this.byGrains = byGrains;
      this.synchronous.clear();
      if (byGrains) this.grains.clear(ratio);
      else this.spectrum.clear(ratio);
    }
    const formantRatio = Math.pow(2, values[P.formantShift]! / 12) * (values[P.formants] === FOLLOW ? ratio : 1);
    const followsPitch = formantRatio / ratio < 1.0001 && formantRatio / ratio > 0.9999;
    if (byGrains) {
      this.grains.process(input, wet, ratio);
      // Pitched sound gets its formants shifted independently; unpitched sound is unchanged.
      this.synchronous.process(input, wet, ratio, formantRatio, !followsPitch);
      return;
    }
    this.spectrum.process(input, wet, ratio, followsPitch ? ratio : formantRatio);
  }
}

const ratioOf = (values: Float64Array): number => Math.pow(2, (values[P.semitones]! + values[P.cents]! / 100) / 12);
