import { playGrid } from '../../core/piece/playGrid';
import { baseValue, findSlot, targetKey } from '../../core/piece/find';
import type { EffectTarget, Piece } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { useRecording } from '../../data/recording';
import { nextLine } from './morph';
import { usePlayed } from './played';
import { usePiece, useStudio } from './StudioProvider';

/** Beats from line to line of a grid of a hold at a beat, by the id of its parameter; 0 for none. */
export function holdGrid(
  piece: Piece,
  { channel, effect }: EffectTarget,
  param: 'startsOn' | 'endsOn',
  beat: number,
): number {
  const grid = findSlot(piece, channel, effect)?.values[param];
  return playGrid(piece, String(grid), beat);
}

interface HoldHands {
  begin(): void;
  end(): void;
  readonly down: boolean;
}

/** A hold for a pad: held while the pad is, or from one tap to the next where it latches. */
export function useHoldPad(target: EffectTarget): HoldHands {
  const piece = usePiece();
  const { studio } = useStudio();
  const played = usePlayed((state) => targetKey(target) in state.now);
  const latches = findSlot(piece, target.channel, target.effect)?.values.latch === true;
  // A hold that is on by its lane is released by a tap, whether it latches or not.
  const on = baseValue(piece, target) === true;
  const line = (): number | null => {
    const grid = holdGrid(piece, target, 'startsOn', studio.beat);
    return grid > 0 && useRecording.getState().playing ? nextLine(piece, studio.beat, grid) : null;
  };
  return {
    down: played || on,
    begin: () => {
      if (!useRecording.getState().playing)
        useOpenPiece.getState().say('Press Play first: a hold works on what sounds.');
      if (on) studio.release(target, false);
      else if (latches && played) studio.live.end(target);
      else studio.live.begin(target, true, 0, line());
    },
    end: () => {
      if (!latches) studio.live.end(target);
    },
  };
}
