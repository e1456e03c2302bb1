import type { EffectTarget } from '../../core/piece/piece';
import { useStudio } from '../studio/StudioProvider';
import { NO_EXPRESSION, usePlayState, type NoteExpression } from './playState';

/** Moves parameters of a hold by the velocity and the aftertouch of its note; `letGo` ends that with the note. */
export function useNoteExpression(hold: EffectTarget): {
  noteOn(velocity: number): void;
  aftertouch(pressure: number): void;
  letGo(): void;
} {
  const { studio } = useStudio();
  const expressions = usePlayState((state) => state.expressions[hold.effect]) ?? NO_EXPRESSION;
  const move = (by: keyof NoteExpression, position: number): void => {
    const param = expressions[by];
    if (param !== null) studio.live.moveTo({ target: { ...hold, param }, position });
  };
  return {
    noteOn: (velocity) => move('velocity', velocity),
    aftertouch: (pressure) => move('aftertouch', pressure),
    letGo: () => {
      for (const param of new Set(Object.values(expressions))) if (param !== null) studio.live.end({ ...hold, param });
    },
  };
}
