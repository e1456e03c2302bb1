import type { LoadedSound } from '../../audio/soundLibrary';
import { Button } from '../../ui/Button';
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
    <Button label={`${verb} ${name}`} icon={sounding ? 'square' : 'play'} disabled={!sound} onPress={press}>
      {text ? verb : undefined}
    </Button>
  );
}
