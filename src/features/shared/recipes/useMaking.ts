import { useState } from 'react';
import { usePreview } from '../../studio/usePreview';
import { reasonOf } from '../../../core/reasonOf';

interface Making {
  readonly busy: boolean;
  /** An error message for the person. */
  readonly trouble: string | null;
  refuse(message: string): void;
  /** Runs a longer action; errors are shown, with what was kept. */
  doing(act: () => Promise<void>): Promise<void>;
  readonly sounding: boolean;
  /** Plays the result of `make`, or stops playing; where there is no result, `nothing` is shown. */
  hear(make: () => Promise<readonly Float32Array[] | null>, sampleRate: number, nothing?: string): Promise<void>;
}

/** Rendering and audition for the sheet of a recipe. */
export function useMaking(): Making {
  const preview = usePreview();
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const doing = async (act: () => Promise<void>): Promise<void> => {
    setBusy(true);
    setTrouble(null);
    try {
      await act();
    } catch (error) {
      setTrouble(`${reasonOf(error)} Nothing was changed.`);
    }
    setBusy(false);
  };
  const hear: Making['hear'] = async (make, sampleRate, nothing = '') => {
    if (preview.sounding) {
      preview.stop();
      return;
    }
    await doing(async () => {
      const sound = await make();
      if (sound) await preview.hear(sound, sampleRate);
      else setTrouble(nothing);
    });
  };
  return { busy, trouble, refuse: setTrouble, doing, sounding: preview.sounding, hear };
}
