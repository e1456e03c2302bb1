import type { LoadedSound } from '../../audio/soundLibrary';
import { Tap } from '../../ui/Tap';
import { usePreview } from '../studio/usePreview';

interface HearTapProps {
  readonly name: string;
  /** Undefined until it has come. */
  readonly sound: LoadedSound | undefined;
  readonly sampleRate: number;
  readonly text?: boolean;
}

/** Plays a sound by itself, and stops it. */
export function HearTap({ name, sound, sampleRate, text = false }: HearTapProps) {
  const { sounding, hear, stop } = usePreview();
  const press = (): void => {
    if (sounding) stop();
    else if (sound) void hear(sound.channels, sampleRate);
  };
  const verb = sounding ? 'Stop' : 'Hear';
  return (
    <Tap
      icon={sounding ? 'square' : 'play'}
      label={`${verb} ${name}`}
      text={text ? verb : undefined}
      disabled={!sound}
      onPress={press}
    />
  );
}
