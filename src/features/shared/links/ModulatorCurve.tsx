import { useMemo, useRef, useState } from 'react';
import { StyleSheet, View, type LayoutChangeEvent } from 'react-native';
import Svg, { Line, Path } from 'react-native-svg';
import type { Modulator } from '../../../core/automation/modulator';
import { modulatorAt, modulatorTrack } from '../../../core/automation/modulatorTrack';
import { beatsToSamples } from '../../../core/music/tempo';
import { linkTransferOf } from '../../../core/piece/links/link';
import { linkOffset } from '../../../core/automation/linkTransfer';
import type { Link } from '../../../core/piece/piece';
import { contextOf } from '../../../core/piece/find';
import { elementOf, useFrame } from '../../../ui/frame';
import { useTokens } from '../../../ui/theme';
import { usePiece, useStudio } from '../../studio/StudioProvider';

const HIGH = 64;
const PAD = 5;
const SPAN_BARS = 2;
const POINTS = 240;

/**
 * Two bars of a modulator's output, scaled by the link, from the even bar of the playhead on; a mark moves along it.
 */
export function ModulatorCurve({ modulator, link }: { readonly modulator: Modulator; readonly link: Link }) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const [width, setWidth] = useState(0);
  const mark = useRef<View>(null);
  const track = useMemo(() => modulatorTrack(modulator, contextOf(piece)), [modulator, piece]);
  const span = SPAN_BARS * piece.tempo.beatsPerBar;
  const spanSamples = beatsToSamples(span, piece.tempo, piece.sampleRate);
  const y = useMemo(() => {
    const { depth, curve } = linkTransferOf(link);
    // By the square root of the depth, so that a small one is visible; its range depends on the rail's value, so it is
    // not shown here.
    const reach = (HIGH / 2 - PAD) * Math.sqrt(Math.abs(depth)) * Math.sign(depth);
    return (turn: number): number => HIGH / 2 - linkOffset(0, turn, { depth: 1, curve, low: 0, high: 1 }) * reach;
  }, [link]);
  const path = useMemo(
    () =>
      Array.from(
        { length: POINTS + 1 },
        (_, i) =>
          `${i === 0 ? 'M' : 'L'}${((width * i) / POINTS).toFixed(1)} ${y(modulatorAt(track, (spanSamples * i) / POINTS)).toFixed(1)}`,
      ).join(''),
    [track, width, spanSamples, y],
  );
  useFrame(() => {
    const element = elementOf(mark.current);
    if (!element) return;
    const sample = beatsToSamples(studio.beat, piece.tempo, piece.sampleRate);
    element.style.transform = `translate(${(((sample % spanSamples) / spanSamples) * width - 5).toFixed(1)}px, ${(y(modulatorAt(track, sample)) - 5).toFixed(1)}px)`;
  });
  return (
    <View
      role="img"
      aria-label={`${modulator.name} over two bars`}
      onLayout={(event: LayoutChangeEvent) => setWidth(event.nativeEvent.layout.width)}
      style={[styles.field, { backgroundColor: tokens.paper }]}
    >
      {width > 0 ? (
        <Svg width={width} height={HIGH}>
          {Array.from({ length: span }, (_, i) => (
            <Line
              key={i}
              x1={(width * i) / span}
              x2={(width * i) / span}
              y1={0}
              y2={HIGH}
              stroke={tokens.line}
              strokeWidth={i % piece.tempo.beatsPerBar === 0 ? 2 : 1}
            />
          ))}
          <Line
            x1={0}
            x2={width}
            y1={HIGH / 2}
            y2={HIGH / 2}
            stroke={tokens.mute}
            strokeWidth={1}
            strokeDasharray="2 5"
          />
          <Path d={path} stroke={tokens.coral} strokeWidth={2} fill="none" strokeLinejoin="round" />
        </Svg>
      ) : null}
      <View ref={mark} style={[styles.mark, { backgroundColor: tokens.coral, borderColor: tokens.card }]} />
    </View>
  );
}

const styles = StyleSheet.create({
  field: { height: HIGH, borderRadius: 10, overflow: 'hidden', marginTop: 4 },
  mark: { position: 'absolute', left: 0, top: 0, width: 10, height: 10, borderRadius: 5, borderWidth: 1 },
});
