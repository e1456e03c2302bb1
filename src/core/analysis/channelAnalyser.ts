import { bandPower, MeanSpectrum, SPECTRUM_FRAMES } from './meanSpectrum';
import { MONO_BANDS, type AnalysisReport } from './analysisReport';
import { RunningLoudness } from './runningLoudness';
import { logFrequencies } from './spectrum';
import { StereoImage } from './stereoImage';

/** Frequencies of the spectra. */
export const SPECTRUM_HZ = logFrequencies(30, 18_000, 72);
const HOP = SPECTRUM_FRAMES / 2;
const LOW_MID = [150, 500] as const;
/** -80 dB: level below which a band counts as silent. */
const HEARD = 1e-8;
const WAVE_SECONDS = 0.05;
const WAVE_STEPS = 80;
const PAIRS = 192;
const PAIR_STRIDE = 4;
const IMAGE_RUN = 64;

export type Four = readonly [Float32Array, Float32Array, Float32Array, Float32Array];

/** Analyses a channel before and after its effects: loudness, spectra, stereo image, loss in mono. */
export class ChannelAnalyser {
  private readonly loudness: RunningLoudness;
  private readonly image: StereoImage;
  private readonly spectra = [new MeanSpectrum(), new MeanSpectrum()] as const;
  /** The newest samples of all four, oldest first. */
  private readonly recent: Four = [
    new Float32Array(SPECTRUM_FRAMES),
    new Float32Array(SPECTRUM_FRAMES),
    new Float32Array(SPECTRUM_FRAMES),
    new Float32Array(SPECTRUM_FRAMES),
  ];
  private sinceSpectrum = 0;
  private readonly waves = [new Float32Array(WAVE_STEPS), new Float32Array(WAVE_STEPS)] as const;
  private waveFilled = 0;
  private readonly waveFrames: number;
  private readonly imageRuns = [new Float64Array(IMAGE_RUN), new Float64Array(IMAGE_RUN)] as const;

  constructor(private readonly sampleRate: number) {
    this.loudness = new RunningLoudness(sampleRate);
    this.image = new StereoImage(IMAGE_RUN, sampleRate);
    this.waveFrames = Math.round(WAVE_SECONDS * sampleRate);
  }

  /** Resets all that is accumulated since the beginning. */
  clear(): void {
    this.loudness.clear();
    for (const spectrum of this.spectra) spectrum.clear();
  }

  /**
   * @param four left and right before the effects, left and right after them; `frames` samples of each, a multiple of
   * 64
   */
  process(four: Four, frames: number): void {
    this.loudness.process(four[2], four[3], 0, frames);
    for (let at = 0; at + IMAGE_RUN <= frames; at += IMAGE_RUN) {
      for (let i = 0; i < IMAGE_RUN; i += 1) {
        this.imageRuns[0][i] = four[2][at + i]!;
        this.imageRuns[1][i] = four[3][at + i]!;
      }
      this.image.process(this.imageRuns[0], this.imageRuns[1]);
      this.storeSamples(four, at);
      this.drawWaves(four, at);
    }
  }

  private storeSamples(four: Four, at: number): void {
    this.recent.forEach((kept, i) => {
      kept.copyWithin(0, IMAGE_RUN);
      kept.set(four[i]!.subarray(at, at + IMAGE_RUN), SPECTRUM_FRAMES - IMAGE_RUN);
    });
    this.sinceSpectrum += IMAGE_RUN;
    if (this.sinceSpectrum < HOP) return;
    this.sinceSpectrum = 0;
    this.spectra[0].addBlock(this.recent[0], this.recent[1]);
    this.spectra[1].addBlock(this.recent[2], this.recent[3]);
  }

  private drawWaves(four: Four, at: number): void {
    if (this.waveFilled >= this.waveFrames) {
      this.waveFilled = 0;
      for (const wave of this.waves) {
        wave.copyWithin(0, 1);
        wave[WAVE_STEPS - 1] = 0;
      }
    }
    this.waves.forEach((wave, i) => {
      for (let k = at; k < at + IMAGE_RUN; k += 1) {
        const level = Math.max(Math.abs(four[2 * i]![k]!), Math.abs(four[2 * i + 1]![k]!));
        if (level > wave[WAVE_STEPS - 1]!) wave[WAVE_STEPS - 1] = level;
      }
    });
    this.waveFilled += IMAGE_RUN;
  }

  report(): AnalysisReport {
    const [before, after] = this.spectra;
    return {
      momentary: this.loudness.momentary,
      shortTerm: this.loudness.shortTerm,
      integrated: this.loudness.integrated,
      truePeakDb: this.loudness.truePeakDb,
      before: this.curve(before.power),
      after: this.curve(after.power),
      monoLossDb: this.monoLoss(after),
      correlation: this.image.correlation,
      lowMidDb: this.lowMid(),
      pairs: this.pairs(),
      waveBefore: [...this.waves[0]],
      waveAfter: [...this.waves[1]],
    };
  }

  /** Level in bands of a third of an octave round each frequency, in dB. */
  private curve(power: Float64Array): number[] {
    return SPECTRUM_HZ.map(
      (hz) =>
        10 *
        Math.log10(
          Math.max(
            1e-12,
            bandPower(
              power,
              hz * 2 ** (-1 / 6),
              Math.max(hz * 2 ** (1 / 6), hz + this.sampleRate / SPECTRUM_FRAMES),
              this.sampleRate,
            ),
          ),
        ),
    );
  }

  private monoLoss({ power, mono }: MeanSpectrum): number[] {
    return MONO_BANDS.map(({ to }, i) => {
      const from = i === 0 ? 0 : MONO_BANDS[i - 1]!.to;
      const both = bandPower(power, from, to, this.sampleRate);
      return both < HEARD
        ? 0
        : Math.max(-60, 10 * Math.log10(Math.max(1e-6, bandPower(mono, from, to, this.sampleRate) / both)));
    });
  }

  private lowMid(): number | null {
    const grown = (from: number, to: number): number | null => {
      const [was, is] = [
        bandPower(this.spectra[0].power, from, to, this.sampleRate),
        bandPower(this.spectra[1].power, from, to, this.sampleRate),
      ];
      return was < HEARD || is < HEARD ? null : 10 * Math.log10(is / was);
    };
    const [band, whole] = [grown(...LOW_MID), grown(20, this.sampleRate / 2)];
    return band === null || whole === null ? null : band - whole;
  }

  private pairs(): number[] {
    const [, , left, right] = this.recent;
    return Array.from({ length: PAIRS }, (_, i) => SPECTRUM_FRAMES - (PAIRS - i) * PAIR_STRIDE).flatMap((at) => [
      left[at]!,
      right[at]!,
    ]);
  }
}
