import { useMemo, useState } from 'react';
import { baseValue, findLane, paramOf, slotPlaces, targetKey } from '../../core/piece/find';
import { laneTrack, trackAt } from '../../core/piece/moves/lane';
import type { EffectTarget } from '../../core/piece/piece';
import { useRecording } from '../../data/recording';
import { useFrame } from '../../ui/frame';
import { usePlayed } from '../studio/played';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { holdGrid } from '../studio/useHoldPad';
import { HoldPhaseTracker, type HoldPhase } from './holdPhase';

/** The phase of a hold, by the hand on it, its lane or its base value. @param target the same object while it is the same */
export function useHoldPhase(target: EffectTarget): { readonly phase: HoldPhase; readonly tracker: HoldPhaseTracker } {
  const piece = usePiece();
  const { studio } = useStudio();
  const [tracker] = useState(() => new HoldPhaseTracker());
  const [phase, setPhase] = useState<HoldPhase>('asleep');
  const lane = findLane(piece, target);
  const track = useMemo(() => {
    const param = paramOf(piece, target);
    return lane?.on && param ? laneTrack(piece, lane, param) : null;
  }, [piece, lane, target]);
  const index = useMemo(() => slotPlaces(piece).get(target.effect) ?? -1, [piece, target.effect]);
  useFrame(() => {
    const { beat } = studio;
    const { playing } = useRecording.getState();
    setPhase(
      tracker.update({
        beat,
        playing,
        hand: usePlayed.getState().now[targetKey(target)],
        held: baseValue(piece, target) === true || (playing && track !== null && trackAt(track, beat) >= 0.5),
        soundsInEngine: studio.player.meters.slotActivity(index) > 0,
        endGrid: holdGrid(piece, target, 'endsOn', beat),
        piece,
      }),
    );
  });
  return { phase, tracker };
}
