import { useEffect, useId, useState } from 'react';
import { painter } from '../../audio/painter';
import type { EffectPicture } from '../../core/effects/pictures';
import type { ParamValues, ValueContext } from '../../core/params/param';

/** Picture of an effect with these values, computed in a worker; null until the first one is ready. */
/** @param own samples of the sound that the effect works with, if it has one */
export function usePicture(
  effect: string,
  values: ParamValues,
  context: ValueContext,
  own?: readonly Float32Array[],
): EffectPicture | null {
  const [picture, setPicture] = useState<EffectPicture | null>(null);
  const who = useId();
  const { tempo, sampleRate } = context;
  useEffect(() => {
    painter().paint(
      who,
      { effect, values, context: { tempo: { bpm: tempo.bpm, beatsPerBar: tempo.beatsPerBar }, sampleRate }, own },
      setPicture,
    );
  }, [who, effect, values, tempo.bpm, tempo.beatsPerBar, sampleRate, own]);
  useEffect(() => () => painter().forget(who), [who]);
  return picture;
}
