import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import { barStart, barsUpTo, snapBeats, toBarBeat } from '../../../core/music/grid';
import { tempoOf } from '../../../core/piece/tempoOf';
import { metreName } from '../../../core/music/metre';
import { useRecording } from '../../../data/recording';
import { useView } from '../../../data/view';
import { useDrag, useKeys } from '../../../ui/pointer';
import { useTokens } from '../../../ui/theme';
import { FONT, FONT_STRONG, TOUCH } from '../../../ui/tokens';
import { usePiece, useStudio } from '../../studio/StudioProvider';
import { beatByKey, rangeTo } from './rulerKeys';

/** Bars along the top: tap to go there, drag to choose a stretch; by keyboard arrows, Home, End and Page, with Shift a stretch. */
export function TimeRuler({ width, pxPerBeat }: { readonly width: number; readonly pxPerBeat: number }) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const range = useView((view) => view.range);
  const punch = useRecording((recording) => recording.punch);
  const snap = useView((view) => view.snap);
  const view = useRef<View>(null);
  const perBar = piece.tempo.beatsPerBar;
  const clamp = (beat: number): number => Math.min(piece.lengthBeats, Math.max(0, beat));
  useDrag(view, {
    begin: () => true,
    move: (drag) => {
      const step = snap.kind === 'grid' ? Math.min(1, snap.beats) : 1;
      const a = clamp(snapBeats(drag.startX / pxPerBeat, step));
      const b = clamp(snapBeats(drag.x / pxPerBeat, step));
      useView.setState({ range: a === b ? null : { start: Math.min(a, b), end: Math.max(a, b) } });
    },
    end: () => undefined,
    tap: (drag) => {
      useView.setState({ range: null });
      studio.locate(clamp(drag.x / pxPerBeat));
    },
  });
  const tempo = tempoOf(piece);
  useKeys(view, ({ key, shiftKey, ctrlKey, metaKey }) => {
    const to = beatByKey(key, studio.beat, piece.lengthBeats, tempo);
    if (to === null || ctrlKey || metaKey) return false;
    if (shiftKey) useView.setState({ range: rangeTo(range, studio.beat, to) });
    studio.locate(to);
    return true;
  });
  const bars = Array.from({ length: barsUpTo(piece.lengthBeats, tempo) }, (_, i) => i);
  const every = Math.max(1, Math.ceil(26 / (perBar * pxPerBeat)));
  const xOf = (i: number): number => barStart(i + 1, tempo) * pxPerBeat;
  const sections = piece.sections ?? [];
  const roomAfter = (i: number): number =>
    ((sections[i + 1]?.beat ?? piece.lengthBeats) - sections[i]!.beat) * pxPerBeat;
  const { bar, beat } = toBarBeat(studio.beat, tempo);
  return (
    <View
      ref={view}
      role="slider"
      tabIndex={0}
      aria-label="Place in the piece"
      aria-valuemin={0}
      aria-valuemax={piece.lengthBeats}
      aria-valuenow={Math.round(studio.beat)}
      aria-valuetext={`bar ${bar}, beat ${beat}`}
      style={[styles.ruler, { width }]}
    >
      <Svg width={width} height={TOUCH}>
        {piece.loop.on ? (
          <Rect
            x={piece.loop.start * pxPerBeat}
            y={32}
            width={(piece.loop.end - piece.loop.start) * pxPerBeat}
            height={6}
            rx={3}
            fill={tokens.sea}
            opacity={0.55}
          />
        ) : null}
        {punch ? (
          <Rect
            x={punch.start * pxPerBeat}
            y={40}
            width={(punch.end - punch.start) * pxPerBeat}
            height={4}
            rx={2}
            fill={tokens.danger}
          />
        ) : null}
        {range ? (
          <Rect
            x={range.start * pxPerBeat}
            y={6}
            width={(range.end - range.start) * pxPerBeat}
            height={34}
            rx={5}
            fill={tokens.seaSoft}
          />
        ) : null}
        {sections.map(({ id, beat: at, name, metre }, i) => (
          <G key={id}>
            <Path d={`M${at * pxPerBeat} 29v14l5 -7z`} fill={tokens.sea} />
            {roomAfter(i) > 24 ? (
              <SvgText x={at * pxPerBeat + 8} y={41} fontFamily={FONT_STRONG} fontSize={12} fill={tokens.sea}>
                {clipped(metre ? `${name}  ${metreName(metre)}` : name, roomAfter(i) - 12)}
              </SvgText>
            ) : null}
          </G>
        ))}
        {bars
          .filter((i) => i % every === 0)
          .map((i) => (
            <G key={i}>
              <Line x1={xOf(i)} x2={xOf(i)} y1={28} y2={TOUCH} stroke={tokens.line} />
              <SvgText x={xOf(i) + 3} y={24} fontFamily={FONT} fontSize={12} fill={tokens.mute}>
                {String(i + 1)}
              </SvgText>
            </G>
          ))}
      </Svg>
    </View>
  );
}

/** As much of a name as has room. */
const clipped = (name: string, px: number): string =>
  name.length * 7 <= px ? name : `${name.slice(0, Math.max(1, Math.floor(px / 7) - 1))}…`;

const styles = StyleSheet.create({ ruler: { height: TOUCH, cursor: 'pointer' } });
