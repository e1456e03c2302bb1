import type { ParamValues, ValueContext } from '../params/param';
import type { EffectProcessor } from './define';
import type { EffectPicture } from './pictures';

/**
 * What an effect does, apart from its definition: the page lists effects by definitions alone, and only the audio
 * thread, workers and the server load what makes them sound.
 */
export interface EffectImplementation {
  createProcessor(sampleRate: number): EffectProcessor;
  /** Measured from the running effect. */
  picture(values: ParamValues, context: ValueContext, own?: readonly Float32Array[]): EffectPicture;
}
