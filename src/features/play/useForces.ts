import type { EffectTarget } from '../../core/piece/piece';
import { useStudio } from '../studio/StudioProvider';
import { NO_FORCES, usePlayState, type Forces } from './playState';

/** Moves figures of a hold by the force of the note that plays it, and lets go of them with it. */
export function useForces(hold: EffectTarget): {
  strike(force: number): void;
  press(force: number): void;
  letGo(): void;
} {
  const { studio } = useStudio();
  const forces = usePlayState((state) => state.forces[hold.effect]) ?? NO_FORCES;
  const move = (by: keyof Forces, position: number): void => {
    const param = forces[by];
    if (param !== null) studio.live.moveTo({ target: { ...hold, param }, position });
  };
  return {
    strike: (force) => move('struck', force),
    press: (force) => move('pressed', force),
    letGo: () => {
      for (const param of new Set(Object.values(forces))) if (param !== null) studio.live.end({ ...hold, param });
    },
  };
}
