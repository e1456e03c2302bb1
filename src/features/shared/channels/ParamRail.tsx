import { useMemo, useRef, useState } from 'react';
import type { View } from 'react-native';
import type { Param, ParamValue } from '../../../core/params/param';
import { contextOf, findLane, sameTarget } from '../../../core/piece/find';
import type { Target } from '../../../core/piece/piece';
import { elementOf, useFrame } from '../../../ui/frame';
import { ChoiceRail, Rail, SwitchRail, type RailLane, type RailLook } from '../../../ui/Rail';
import { linkedRail } from '../../../core/piece/links/link';
import { laneTrack, trackAt } from '../../../core/piece/moves/lane';
import { useHand, usePiece, useStudio } from '../../studio/StudioProvider';
import { liveOutput } from '../../studio/liveOutput';

interface ParamRailProps {
  readonly target: Target;
  readonly param: Param;
  readonly value: ParamValue;
  readonly initial?: ParamValue;
  readonly look?: RailLook;
  /** Accessible name, where others in view have the same label. */
  readonly spoken?: string | undefined;
  /** Called while it is dragged, before the value is part of the piece: for pictures. */
  readonly onLive?: (value: ParamValue | null) => void;
}

/** Keeps the identity of a target while it is equal: callers create it anew at each render. */
function useSteady(target: Target): Target {
  const [steady, setSteady] = useState(target);
  const same = sameTarget(steady, target);
  if (!same) setSteady(target);
  return same ? steady : target;
}

/**
 * A rail of a target of the piece: dragging is heard, releasing stores the value or records it; its lane and the range
 * of its links are drawn on it in coral.
 */
export function ParamRail({ target, param, value, initial, look, spoken, onLive }: ParamRailProps) {
  const piece = usePiece();
  const hand = useHand(target);
  const { studio } = useStudio();
  const context = useMemo(() => contextOf(piece), [piece]);
  const mark = useRef<View>(null);
  const lane = findLane(piece, target);
  const track = useMemo(() => (lane?.on ? laneTrack(piece, lane, param) : null), [lane, param, piece]);
  const steady = useSteady(target);
  const linked = useMemo(() => linkedRail(piece, steady, liveOutput(studio, piece)), [piece, steady, studio]);
  const railLane = useMemo<RailLane | undefined>(() => {
    if (linked) return { low: linked.low, high: linked.high, live: () => linked.at(studio.beat) };
    if (!track) return undefined;
    const low = track.positions.reduce((a, b) => Math.min(a, b), 1);
    const high = track.positions.reduce((a, b) => Math.max(a, b), 0);
    return { low, high, live: () => trackAt(track, studio.beat) };
  }, [linked, track, studio]);
  useFrame(() => {
    const element = railLane ? elementOf(mark.current) : null;
    if (element && railLane) element.style.left = `${railLane.live() * 100}%`;
  });
  const set = (next: ParamValue): void => {
    onLive?.(null);
    hand.release(next);
  };
  if (param.kind === 'toggle') return <SwitchRail param={param} value={value} spoken={spoken} onSet={set} />;
  if (param.kind === 'choice') return <ChoiceRail param={param} value={value} spoken={spoken} onSet={set} />;
  const touch = (next: ParamValue): void => {
    onLive?.(next);
    hand.touch(next);
  };
  return (
    <Rail
      param={param}
      value={value}
      context={context}
      initial={initial}
      look={look}
      spoken={spoken}
      lane={railLane}
      laneMark={mark}
      onTouch={touch}
      onSet={set}
    />
  );
}
