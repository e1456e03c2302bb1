import { useEffect, useRef, useState } from 'react';
import { Painter } from '../../audio/painter';
import type { EffectPicture } from '../../core/effects/define';
import type { ParamValues, ValueContext } from '../../core/params/param';

/** What an effect really does with these values, found by running it in a worker; null until the first one has come. */
export function usePicture(effect: string, values: ParamValues, context: ValueContext): EffectPicture | null {
  const [picture, setPicture] = useState<EffectPicture | null>(null);
  const painter = useRef<Painter | null>(null);
  useEffect(() => {
    const made = new Painter(setPicture);
    painter.current = made;
    return () => {
      painter.current = null;
      made.close();
    };
  }, []);
  const { tempo, sampleRate } = context;
  useEffect(() => {
    painter.current?.paint({ effect, values, context: { tempo: { bpm: tempo.bpm, beatsPerBar: tempo.beatsPerBar }, sampleRate } });
  }, [effect, values, tempo.bpm, tempo.beatsPerBar, sampleRate]);
  return picture;
}
