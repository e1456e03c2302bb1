import { useEffect, useRef, useState } from 'react';
import { preview } from '../../audio/preview';

interface Preview {
  readonly sounding: boolean;
  /** Plays samples outside the piece. */
  hear(channels: readonly Float32Array[], sampleRate: number): Promise<void>;
  stop(): void;
}

/** A preview that stops when its component is unmounted. */
export function usePreview(): Preview {
  const [sounding, setSounding] = useState(false);
  const stop = useRef<(() => void) | null>(null);
  useEffect(() => () => stop.current?.(), []);
  return {
    sounding,
    hear: async (channels, sampleRate) => {
      setSounding(true);
      stop.current = await preview({ channels }, sampleRate, () => setSounding(false));
    },
    stop: () => stop.current?.(),
  };
}
