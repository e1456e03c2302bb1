import { useMemo, useRef, useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Path, Svg } from 'react-native-svg';
import { laneTrack, trackAt } from '../../core/piece/moves/lane';
import { positionsAt, restPoint, type FieldPoint } from '../../core/piece/moves/fieldMotion';
import { findLane, paramOf } from '../../core/piece/find';
import type { FieldAxis, PlayField } from '../../core/piece/playField';
import { elementOf, useFrame } from '../../ui/frame';
import { LiveText } from '../../ui/LiveText';
import { Text } from '../../ui/Text';
import { useTokens } from '../../ui/theme';
import { FONT_WATER, RADIUS } from '../../ui/tokens';
import { usePiece, useStudio } from '../studio/StudioProvider';
import type { FieldHand } from './fieldHand';
import { labelOf, valueText } from './fieldText';
import { useFieldHand } from './useFieldHand';

const MARK = 26;

/** Water on which one finger moves two parameters: depth lines, the finger's wake, and what was recorded as a dotted trail. */
export function FieldSurface({ field }: { readonly field: PlayField }) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const view = useRef<View>(null);
  const mark = useRef<View>(null);
  const hand = useFieldHand(view, field);
  const across = labelOf(piece, field.across.target);
  const up = labelOf(piece, field.up.target);
  const here = (): FieldPoint => hand.point ?? restPoint(piece, field, studio.beat);
  const read = (): string => {
    const [x, y] = positionsAt(piece, field, here());
    return `${valueText(piece, x!)} · ${valueText(piece, y!)}`;
  };
  useFrame(() => {
    const box = elementOf(view.current);
    const dot = elementOf(mark.current);
    if (!box || !dot) return;
    const { x, y } = here();
    dot.style.transform = `translate(${x * box.clientWidth - MARK / 2}px, ${(1 - y) * box.clientHeight - MARK / 2}px)`;
    dot.style.opacity = hand.point ? '1' : '0.45';
    // Told when it has come to rest: a reader would not follow each step.
    if (!hand.point || !box.hasAttribute('aria-valuetext')) box.setAttribute('aria-valuetext', read());
    box.setAttribute('aria-valuenow', String(Math.round(100 * x)));
  });
  return (
    <View
      ref={view}
      role="slider"
      tabIndex={0}
      aria-label={`Field ${field.name}: ${across} across, ${up} up`}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={50}
      {...{ dataSet: { field: field.id } }}
      style={[styles.field, { backgroundColor: tokens.card, borderColor: tokens.line }]}
    >
      <Depths color={tokens.sea} />
      <Recorded field={field} color={tokens.coral} />
      <Wake hand={hand} color={tokens.sea} />
      <View ref={mark} style={[styles.mark, { borderColor: tokens.sea }]}>
        <View style={[styles.core, { backgroundColor: tokens.sea }]} />
      </View>
      <View style={styles.top} pointerEvents="none">
        <Text variant="headlineSmall" style={styles.name} numberOfLines={1}>
          {field.name}
        </Text>
        <LiveText strong read={read} />
      </View>
      <View style={styles.foot} pointerEvents="none">
        <Text style={styles.axis}>{`${across} →`}</Text>
        <Text style={styles.axis}>{`↑ ${up}`}</Text>
      </View>
    </View>
  );
}

/** Drawn over the whole field, in a box of 100 by 100. */
function Layer({ children }: { readonly children: ReactNode }) {
  return (
    <Svg width="100%" height="100%" style={styles.layer} viewBox="0 0 100 100" preserveAspectRatio="none" aria-hidden>
      {children}
    </Svg>
  );
}

const LINES = 8;

/** Lines of the depth, which are closer towards the top. Their waves are those of three sines each. */
function Depths({ color }: { readonly color: string }) {
  const lines = useMemo(
    () =>
      Array.from({ length: LINES }, (_, line) => {
        const base = 16 + 80 * (1 - Math.pow((line + 0.6) / LINES, 0.8));
        const points = Array.from({ length: 41 }, (__, i) => {
          const x = i / 40;
          const swell =
            Math.sin(6.1 * x + line * 1.7) + 0.6 * Math.sin(11.3 * x - line * 0.9) + 0.3 * Math.sin(19 * x + line);
          return `${(100 * x).toFixed(2)} ${(base + swell * (0.6 + 0.25 * line)).toFixed(2)}`;
        });
        return { d: `M${points.join('L')}`, opacity: 0.12 + 0.05 * line };
      }),
    [],
  );
  return (
    <Layer>
      {lines.map(({ d, opacity }) => (
        <Path
          key={d}
          d={d}
          stroke={color}
          strokeOpacity={opacity}
          strokeWidth={1.2}
          fill="none"
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </Layer>
  );
}

const toPath = (points: readonly FieldPoint[]): string =>
  points.length < 2
    ? ''
    : `M${points.map(({ x, y }) => `${(100 * x).toFixed(1)} ${(100 - 100 * y).toFixed(1)}`).join('L')}`;

/** Where the hand has been within the last bar. */
function Wake({ hand, color }: { readonly hand: FieldHand; readonly color: string }) {
  const piece = usePiece();
  const { beatsPerBar, bpm } = piece.tempo;
  const trail = useRef<(FieldPoint & { readonly at: number })[]>([]);
  const [path, setPath] = useState('');
  useFrame(() => {
    const now = performance.now();
    const { point } = hand;
    const last = trail.current[trail.current.length - 1];
    if (point && (!last || Math.hypot(point.x - last.x, point.y - last.y) > 0.004))
      trail.current.push({ ...point, at: now });
    const barMs = (beatsPerBar * 60_000) / bpm;
    trail.current = trail.current.filter(({ at }) => now - at < barMs);
    const next = toPath(trail.current);
    if (next !== path) setPath(next);
    return trail.current.length > 0;
  });
  return (
    <Layer>
      <Path
        d={path}
        stroke={color}
        strokeWidth={3}
        strokeLinecap="round"
        strokeLinejoin="round"
        fill="none"
        vectorEffect="non-scaling-stroke"
      />
    </Layer>
  );
}

const READINGS = 96;
/** The trail of what was recorded is drawn anew so often a beat. */
const REDRAWS = 4;

/** What was recorded of both directions: the bar before and after the playhead, as far as there are moves. */
function Recorded({ field, color }: { readonly field: PlayField; readonly color: string }) {
  const piece = usePiece();
  const { studio } = useStudio();
  const tracks = useMemo(() => {
    const track = ({ target }: FieldAxis): ((beat: number) => number) | null => {
      const param = paramOf(piece, target);
      const lane = findLane(piece, target);
      const made = param && lane?.on ? laneTrack(piece, lane, param) : null;
      return made && ((beat) => trackAt(made, beat));
    };
    return [track(field.across), track(field.up)] as const;
  }, [piece, field]);
  const [path, setPath] = useState('');
  const drawn = useRef(NaN);
  useFrame(() => {
    const [x, y] = tracks;
    const beat = Math.floor(studio.beat * REDRAWS) / REDRAWS;
    if (beat === drawn.current || (!x && !y && path === '')) return;
    drawn.current = beat;
    const { beatsPerBar } = piece.tempo;
    const rest = restPoint(piece, field, beat);
    const share = ({ from, to }: FieldAxis, position: number): number =>
      from === to ? 0.5 : (position - from) / (to - from);
    const points = Array.from({ length: READINGS + 1 }, (_, i) => {
      const at = beat - beatsPerBar + (2 * beatsPerBar * i) / READINGS;
      return { x: x ? share(field.across, x(at)) : rest.x, y: y ? share(field.up, y(at)) : rest.y };
    });
    const moves = points.some((point) => Math.hypot(point.x - points[0]!.x, point.y - points[0]!.y) > 0.01);
    setPath(x || y ? (moves ? toPath(points) : '') : '');
  });
  return (
    <Layer>
      <Path
        d={path}
        stroke={color}
        strokeWidth={2.5}
        strokeDasharray="1 6"
        strokeLinecap="round"
        fill="none"
        vectorEffect="non-scaling-stroke"
      />
    </Layer>
  );
}

const styles = StyleSheet.create({
  field: { flex: 1, minHeight: 160, borderWidth: 1, borderRadius: RADIUS.card, overflow: 'hidden', userSelect: 'none' },
  layer: { ...StyleSheet.absoluteFill, pointerEvents: 'none' },
  mark: {
    position: 'absolute',
    left: 0,
    top: 0,
    width: MARK,
    height: MARK,
    borderRadius: MARK / 2,
    borderWidth: 2,
    alignItems: 'center',
    justifyContent: 'center',
    pointerEvents: 'none',
  },
  core: { width: 10, height: 10, borderRadius: 5 },
  top: { position: 'absolute', left: 14, right: 14, top: 8, flexDirection: 'row', alignItems: 'baseline', gap: 10 },
  name: { flex: 1, fontFamily: FONT_WATER },
  foot: { position: 'absolute', left: 14, right: 14, bottom: 8, flexDirection: 'row', justifyContent: 'space-between' },
  axis: { fontSize: 15 },
});
