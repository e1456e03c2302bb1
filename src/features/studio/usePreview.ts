import { useEffect, useRef, useState } from 'react';
import { preview } from '../../audio/preview';

interface Preview {
  readonly sounding: boolean;
  /** Plays channels of samples by themselves, outside the piece. */
  hear(channels: readonly Float32Array[], sampleRate: number): Promise<void>;
  stop(): void;
}

/** What is heard by itself from here; it stops when what it belongs to is closed. */
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
