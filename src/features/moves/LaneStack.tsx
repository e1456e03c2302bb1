import { memo, useDeferredValue } from 'react';
import { useWindowDimensions, View } from 'react-native';
import type { Lane, Track } from '../../core/piece/piece';
import { useView } from '../../data/view';
import { useWide } from '../../ui/theme';
import { ClipRow } from '../shared/time/ClipRow';
import { Playhead } from '../shared/time/Playhead';
import { TimeRuler } from '../shared/time/TimeRuler';
import { TimeScroll } from '../shared/time/TimeScroll';
import { useTimeScale } from '../shared/time/useTimeScale';
import { usePiece } from '../studio/StudioProvider';
import type { Drawing } from './DrawButton';
import { LaneEditor } from './LaneEditor';
import { useWindow } from './useWindow';

const WAVE = 64;

const LOWEST = 112;
const HIGHEST = 320;
/** What is above and below the lanes of a view: heads, ruler, clips, tools and transport. */
const AROUND = { wide: 500, phone: 600 };
/** Of a lane: its name and the space above it. */
const NAME = 51;
const FOLDED = 30;

/** Lanes share what the screen has left, so that all of them are in sight as far as they can be. */
function laneHeight(open: number, folded: number, wide: boolean, screen: number): number {
  const left = screen - AROUND[wide ? 'wide' : 'phone'] - folded * (NAME + FOLDED);
  return Math.max(LOWEST, Math.min(HIGHEST, Math.floor(left / Math.max(1, open)) - NAME));
}

export interface ChosenPoint {
  readonly lane: string;
  readonly point: number | null;
}

interface LaneStackProps {
  readonly track: Track | undefined;
  readonly lanes: readonly Lane[];
  readonly chosen: ChosenPoint | null;
  /** Id of the lane that the tools below act on. */
  readonly activeLane: string | undefined;
  readonly onChoose: (chosen: ChosenPoint) => void;
  readonly drawing: Drawing;
  readonly hits: readonly number[];
}

/**
 * The lanes under the clips of their channel, along one time; it alone is rendered again when time is zoomed, in
 * slices, so that zooming is never blocked.
 */
export function LaneStack(props: LaneStackProps) {
  const { pxPerBeat, onLayout } = useTimeScale();
  const shown = useDeferredValue(pxPerBeat);
  return (
    <View onLayout={onLayout}>
      <LaneSheet {...props} pxPerBeat={shown} />
    </View>
  );
}

const LaneSheet = memo(function LaneSheet({
  track,
  lanes,
  chosen,
  activeLane,
  onChoose,
  drawing,
  hits,
  pxPerBeat,
}: LaneStackProps & { readonly pxPerBeat: number }) {
  const wide = useWide();
  const { lengthBeats } = usePiece();
  const foldedLanes = useView((view) => view.foldedLanes);
  const width = pxPerBeat * lengthBeats;
  const { window, onScroll } = useWindow(width);
  const fold = (id: string, folded: boolean): void =>
    useView.setState({ foldedLanes: folded ? [...foldedLanes, id] : foldedLanes.filter((other) => other !== id) });
  const screen = useWindowDimensions().height;
  const open = lanes.filter(({ id }) => !foldedLanes.includes(id)).length;
  const height = laneHeight(open, lanes.length - open, wide, screen);
  return (
    <TimeScroll pxPerBeat={pxPerBeat} ruler={<TimeRuler width={width} pxPerBeat={pxPerBeat} />} onScroll={onScroll}>
      <View style={{ width }}>
        {track ? <ClipRow track={track} pxPerBeat={pxPerBeat} height={WAVE} /> : null}
        {lanes.map((lane) => (
          <LaneEditor
            key={lane.id}
            lane={lane}
            pxPerBeat={pxPerBeat}
            width={width}
            window={window}
            height={height}
            folded={foldedLanes.includes(lane.id)}
            onFold={(folded) => fold(lane.id, folded)}
            isChosen={lane.id === activeLane}
            chosen={chosen?.lane === lane.id ? chosen.point : null}
            onChoose={(point) => onChoose({ lane: lane.id, point })}
            drawing={drawing}
            hits={hits}
          />
        ))}
        <Playhead pxPerBeat={pxPerBeat} />
      </View>
    </TimeScroll>
  );
});
