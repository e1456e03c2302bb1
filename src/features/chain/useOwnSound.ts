import type { Slot } from '../../core/piece/piece';
import { useStudio } from '../studio/StudioProvider';

/** Samples of the sound an effect works with, once they have come. */
export function useOwnSound(slot: Slot): readonly Float32Array[] | undefined {
  const { studio } = useStudio();
  return slot.sound && slot.values.source === 'own' ? studio.sounds.get(slot.sound)?.channels : undefined;
}
