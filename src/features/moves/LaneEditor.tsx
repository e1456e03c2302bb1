import { useCallback, useMemo, useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { Path, Rect } from 'react-native-svg';
import { laneTrack } from '../../core/piece/moves/lane';
import type { Param } from '../../core/params/param';
import { contextOf, isWaiting, paramOf } from '../../core/piece/find';
import type { Lane } from '../../core/piece/piece';
import { Pinned } from '../../ui/Pinned';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { useTokens } from '../../ui/theme';
import { usePiece } from '../studio/StudioProvider';
import type { Drawing } from './DrawButton';
import { AxisLines, AxisWords, axisMarks } from './LaneAxis';
import { bendPlace, type LaneGeometry } from './laneGrip';
import { LanePoints } from './LanePoints';
import { laneName } from '../shared/controller/laneName';
import { LaneLeaf } from './LaneLeaf';
import { LaneOverlay } from './LaneOverlay';
import { isCrowded, linePath, shownPoints, type Shown, type Window } from './lanePath';
import { useLaneHand } from './useLaneHand';
import { Touchable } from '../../ui/Touchable';

/** The keys of a lane, as a screen reader says them. */
const KEYS = [
  'Left and right choose a point, with Shift move it in time',
  'up and down change its value, Delete removes it',
  'Control with C, X, V and D copies, cuts, pastes and duplicates it',
].join('; ');
const PAD = 12;
const FOLDED = { height: 30, pad: 5 };

interface LaneEditorProps {
  readonly lane: Lane;
  readonly pxPerBeat: number;
  readonly width: number;
  readonly height: number;
  /** What of the lane is in sight, or near it. */
  readonly window: Window;
  /** Only its line is drawn, low, and no hand changes it. */
  readonly folded: boolean;
  readonly onFold: (folded: boolean) => void;
  /** Whether the tools below the lanes act on it. */
  readonly isChosen: boolean;
  /** Index of the chosen point; null while none of it is. */
  readonly chosen: number | null;
  readonly onChoose: (index: number | null) => void;
  /** Whether a drag draws the line anew, and how, instead of taking a point along. */
  readonly drawing: Drawing;
  /** Beats of the channel's hits, for points that fall on them. */
  readonly hits: readonly number[];
}

/** One lane under its name: folded to its line, or open to be changed by hand. */
export function LaneEditor({ folded, onFold, ...field }: LaneEditorProps) {
  const { lane } = field;
  const piece = usePiece();
  const tokens = useTokens();
  const param = paramOf(piece, lane.target);
  if (!param) return <Text variant="bodySmall">These moves wait: what they moved is no longer here.</Text>;
  const waiting = isWaiting(piece, lane.target);
  const name = laneName(piece, lane, param);
  return (
    <View style={[styles.lane, { borderColor: tokens.line, opacity: lane.on && !waiting ? 1 : 0.5 }]}>
      <Pinned style={styles.head}>
        <IconButton
          icon={folded ? 'chevron-right' : 'chevron-down'}
          label={`${folded ? 'Open' : 'Fold'} lane ${name}`}
          tone="coralInk"

          onPress={() => onFold(!folded)}
        />
        <Touchable
          role="radio"
          label={`Choose lane ${name}`}
          chosen={field.isChosen}
          style={styles.name}
          onPress={() => field.onChoose(null)}
        >
          <Text
            variant="titleSmall"
            tone="coralInk"
            numberOfLines={1}
            style={field.isChosen ? { borderBottomWidth: 2, borderColor: tokens.coral } : null}
          >{`∿ ${name}`}</Text>
        </Touchable>
        <Text variant="bodySmall">{`${waiting ? 'waiting · ' : ''}${lane.travels ? 'travels with clips · ' : ''}${lane.points.length} ${lane.points.length === 1 ? 'point' : 'points'}`}</Text>
      </Pinned>
      {folded ? <FoldedLane {...field} param={param} /> : <LaneField {...field} param={param} name={name} />}
    </View>
  );
}

interface FieldProps extends Omit<LaneEditorProps, 'folded' | 'onFold'> {
  readonly param: Param;
}

/** The lane laid out on the screen, and what of it is seen. */
function useLaid(
  lane: Pick<Lane, 'unit' | 'points'>,
  param: Param,
  pxPerBeat: number,
  height: number,
  pad: number,
): LaneGeometry {
  const piece = usePiece();
  const y = useCallback((position: number): number => pad + (1 - position) * (height - 2 * pad), [height, pad]);
  const track = useMemo(() => laneTrack(piece, lane, param), [piece, lane, param]);
  return useMemo(() => ({ points: lane.points, track, pxPerBeat, y }), [lane, track, pxPerBeat, y]);
}

function useLine(
  { points, track, pxPerBeat, y }: LaneGeometry,
  { from, to }: Window,
): { readonly shown: Shown; readonly crowded: boolean; readonly path: string } {
  return useMemo(() => {
    const shown = shownPoints(points, pxPerBeat, { from, to });
    return {
      shown,
      crowded: isCrowded(shown, { from, to }),
      path: linePath({ points, positions: track.positions, shapes: track.shapes, pxPerBeat, y }, shown, { from, to }),
    };
  }, [points, track, pxPerBeat, y, from, to]);
}

function LaneLine({
  path,
  crowded,
  strokeWidth,
}: {
  readonly path: string;
  readonly crowded: boolean;
  readonly strokeWidth: number;
}) {
  const { coral } = useTokens();
  return crowded ? (
    <Path d={path} fill={coral} />
  ) : (
    <Path d={path} stroke={coral} strokeWidth={strokeWidth} fill="none" strokeLinejoin="round" />
  );
}

function FoldedLane({ lane, param, pxPerBeat, width, window }: FieldProps) {
  const tokens = useTokens();
  const laid = useLaid(lane, param, pxPerBeat, FOLDED.height, FOLDED.pad);
  const { path, crowded } = useLine(laid, window);
  return (
    <View style={[styles.field, { width, height: FOLDED.height, backgroundColor: tokens.card }]}>
      <LaneLeaf window={window} height={FOLDED.height}>
        <LaneLine path={path} crowded={crowded} strokeWidth={1.4} />
      </LaneLeaf>
      <LaneOverlay
        lane={lane}
        track={laid.track}
        pxPerBeat={pxPerBeat}
        window={window}
        height={FOLDED.height}
        y={laid.y}
      />
    </View>
  );
}

/** The line in coral; points, segments and bend handles are dragged, a tap beside them adds a point. */
function LaneField({
  lane,
  param,
  name,
  pxPerBeat,
  width,
  height,
  window,
  chosen,
  onChoose,
  drawing,
  hits,
}: FieldProps & { readonly name: string }) {
  const piece = usePiece();
  const tokens = useTokens();
  const view = useRef<View>(null);
  const standing = useLaid(lane, param, pxPerBeat, height, PAD);
  const moved = useLaneHand(view, { lane, param, laid: standing, height, pad: PAD, chosen, onChoose, drawing, hits });
  const now = useMemo(() => (moved ? { unit: lane.unit, points: [...moved] } : lane), [moved, lane]);
  const laid = useLaid(now, param, pxPerBeat, height, PAD);
  const { points, track, y } = laid;
  const { shown, crowded, path } = useLine(laid, window);
  const marks = useMemo(() => axisMarks(param, contextOf(piece), y), [param, piece, y]);
  const handle = crowded ? null : bendPlace(laid, chosen);
  return (
    <>
      <View
        ref={view}
        role="group"
        tabIndex={0}
        aria-label={`Lane ${name}, ${points.length} points. ${KEYS}`}
        style={[styles.field, { width, height, backgroundColor: tokens.card }]}
      >
        <LaneLeaf window={window} height={height}>
          <AxisLines marks={marks} from={window.from} to={window.to} y={y} />
          <LaneLine path={path} crowded={crowded} strokeWidth={2.2} />
          {crowded ? null : <LanePoints laid={laid} shown={shown} chosen={chosen} />}
          {handle ? (
            <Rect
              x={handle.x - 6}
              y={handle.y - 6}
              width={12}
              height={12}
              rotation={45}
              originX={handle.x}
              originY={handle.y}
              fill={tokens.card}
              stroke={tokens.coral}
              strokeWidth={2}
            />
          ) : null}
        </LaneLeaf>
        <LaneOverlay lane={lane} track={track} pxPerBeat={pxPerBeat} window={window} height={height} y={y} />
      </View>
      <Pinned style={[styles.axis, { height, marginTop: -height }]}>
        <AxisWords marks={marks} y={y} />
      </Pinned>
    </>
  );
}

const styles = StyleSheet.create({
  lane: { borderTopWidth: 1, marginTop: 6 },
  head: { flexDirection: 'row', alignItems: 'center', gap: 8, paddingRight: 12, zIndex: 1 },
  field: { borderRadius: 10, overflow: 'hidden', cursor: 'pointer', userSelect: 'none' },
  name: { paddingHorizontal: 4, borderRadius: 8 },
  axis: { pointerEvents: 'none', zIndex: 1 },
});
