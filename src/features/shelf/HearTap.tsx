import { useRef, useState } from 'react';
import { preview } from '../../audio/preview';
import type { LoadedSound } from '../../audio/soundLibrary';
import { Tap } from '../../ui/Tap';

interface HearTapProps {
  readonly name: string;
  /** Undefined until it has come. */
  readonly sound: LoadedSound | undefined;
  readonly sampleRate: number;
  readonly text?: boolean;
}

/** Plays a sound by itself, and stops it. */
export function HearTap({ name, sound, sampleRate, text = false }: HearTapProps) {
  const [sounding, setSounding] = useState(false);
  const stop = useRef<(() => void) | null>(null);
  const press = async (): Promise<void> => {
    if (sounding) stop.current?.();
    else if (sound) {
      setSounding(true);
      stop.current = await preview(sound, sampleRate, () => setSounding(false));
    }
  };
  const verb = sounding ? 'Stop' : 'Hear';
  return <Tap icon={sounding ? 'square' : 'play'} label={`${verb} ${name}`} text={text ? verb : undefined} disabled={!sound} onPress={() => void press()} />;
}
