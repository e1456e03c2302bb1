import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Circle, Ellipse, G, Line, Path, Text as SvgText } from 'react-native-svg';
import type { EchoPicture } from '../../core/effects/echo/picture';
import type { Tap } from '../../core/analysis/tapList';
import { secondsPerBeat, type Tempo } from '../../core/music/tempo';
import { formatMs } from '../../core/params/format';
import { useDrag } from '../../ui/pointer';
import { useTokens } from '../../ui/theme';
import { FONT, FONT_STRONG, type Tokens } from '../../ui/tokens';
import { heightOf, levelAt, Ripple, rippleWidth } from './ripples';

interface EchoChartProps {
  readonly picture: EchoPicture;
  readonly tempo: Tempo;
  readonly width: number;
  readonly height: number;
  /** The first repeat is dragged to a time in ms. */
  readonly onTime?: (ms: number, done: boolean) => void;
  /** The second repeat is dragged up or down to a feedback. */
  readonly onFeedback?: (feedback: number, done: boolean) => void;
}

const PAD_LEFT = 34;
const PAD_RIGHT = 12;
const RULER = 22;
const TOP = 22;

/** Repeats as ripples along a beat ruler: left above the waterline, right below, darker ink for darker sound. Drag the first for time, the second for feedback. */
export function EchoChart({ picture, tempo, width, height, onTime, onFeedback }: EchoChartProps) {
  const tokens = useTokens();
  const beat = secondsPerBeat(tempo);
  const span = Math.max(beat / 2, Math.min(picture.spanSeconds, beat * 16));
  const middle = TOP + (height - TOP - RULER) / 2;
  const half = (height - TOP - RULER) / 2;
  const x = (seconds: number): number => PAD_LEFT + (seconds / span) * (width - PAD_LEFT - PAD_RIGHT);
  const taps = picture.taps.filter((tap) => tap.seconds <= span);
  const first = tapNear(taps, picture.firstSeconds);
  const second = tapNear(taps, 2 * picture.firstSeconds);
  const crest = (tap: Tap): number => middle - half * heightOf(Math.max(tap.left, tap.right));
  const slope = taps.map((tap, i) => `${i === 0 ? 'M' : 'L'}${x(tap.seconds).toFixed(1)} ${crest(tap).toFixed(1)}`).join('');
  return (
    <View style={{ width, height }}>
      <View role="img" aria-label={describe(picture, taps)} style={StyleSheet.absoluteFill}>
        <Svg width={width} height={height}>
          <Ruler beat={beat} span={span} x={x} height={height} tokens={tokens} />
          <Line x1={8} x2={width - 4} y1={middle} y2={middle} stroke={tokens.mute} strokeWidth={1} />
          <Ellipse cx={x(0)} cy={middle} rx={8} ry={half * 0.98} fill={tokens.sand} />
          {taps.map((tap, i) => (
            <Ripple key={i} tap={tap} x={x(tap.seconds)} middle={middle} half={half} wide={rippleWidth(taps, i, x)} tokens={tokens} />
          ))}
          <Path d={slope} stroke={tokens.sea} strokeWidth={1.4} strokeDasharray="2 5" fill="none" />
          {first ? <Circle cx={x(first.seconds)} cy={crest(first)} r={9} fill={tokens.card} stroke={tokens.sea} strokeWidth={3} /> : null}
          {second ? <Circle cx={x(second.seconds)} cy={crest(second)} r={6} fill={tokens.card} stroke={tokens.sea} strokeWidth={2} /> : null}
          {first ? (
            <SvgText x={Math.min(x(first.seconds) + 14, width - 60)} y={Math.max(13, crest(first) - 4)} fontFamily={FONT_STRONG} fontSize={13} fill={tokens.ink}>
              {formatMs(picture.firstSeconds * 1000)}
            </SvgText>
          ) : null}
          <SvgText x={width - 8} y={TOP + 12} textAnchor="end" fontFamily={FONT} fontSize={12} fill={tokens.mute}>left</SvgText>
          <SvgText x={width - 8} y={height - RULER - 5} textAnchor="end" fontFamily={FONT} fontSize={12} fill={tokens.mute}>right</SvgText>
        </Svg>
      </View>
      {first && onTime ? (
        <Handle x={x(first.seconds)} y={crest(first)} onDrag={(dx, _dy, done) => onTime(Math.max(0.1, (picture.firstSeconds + (dx / (width - PAD_LEFT - PAD_RIGHT)) * span) * 1000), done)} />
      ) : null}
      {first && second && onFeedback ? (
        <Handle
          x={x(second.seconds)}
          y={crest(second)}
          onDrag={(_dx, dy, done) => {
            const ratio = levelAt(heightOf(Math.max(second.left, second.right)) - dy / half) / Math.max(second.left, second.right);
            onFeedback(Math.min(1.2, Math.max(0.02, picture.feedback * ratio)), done);
          }}
        />
      ) : null}
    </View>
  );
}

/** The repeat that stands at a time, so that a handle never takes hold of another side's or a smear's. */
function tapNear(taps: readonly Tap[], seconds: number): Tap | undefined {
  const nearest = [...taps].sort((a, b) => Math.abs(a.seconds - seconds) - Math.abs(b.seconds - seconds))[0];
  return nearest && Math.abs(nearest.seconds - seconds) < 0.2 * seconds + 0.004 ? nearest : undefined;
}

function describe(picture: EchoPicture, taps: readonly Tap[]): string {
  const list = taps.slice(0, 6).map((tap) => {
    const side = tap.left > tap.right * 1.5 ? 'left' : tap.right > tap.left * 1.5 ? 'right' : 'both sides';
    return `${formatMs(tap.seconds * 1000)} ${Math.round(20 * Math.log10(Math.max(tap.left, tap.right, 1e-5)))} dB ${side}`;
  });
  return `Repeats: ${list.join('; ') || 'none'}. First set to ${formatMs(picture.firstSeconds * 1000)}.`;
}

function Ruler({ beat, span, x, height, tokens }: { readonly beat: number; readonly span: number; readonly x: (seconds: number) => number; readonly height: number; readonly tokens: Tokens }) {
  const every = span / beat > 10 ? 2 : 1;
  const beats = Array.from({ length: Math.floor(span / beat / every + 1e-6) + 1 }, (_, i) => i * every);
  return (
    <G>
      {beats.map((at) => (
        <G key={at}>
          <Line x1={x(at * beat)} x2={x(at * beat)} y1={TOP - 6} y2={height - RULER} stroke={tokens.line} strokeWidth={1} />
          <SvgText x={x(at * beat)} y={height - 6} textAnchor="middle" fontFamily={FONT} fontSize={12} fill={tokens.mute}>{String(at + 1)}</SvgText>
        </G>
      ))}
    </G>
  );
}

/** A place of the picture that can be taken hold of. The rails below do the same for keyboard and screen reader. */
function Handle({ x, y, onDrag }: { readonly x: number; readonly y: number; readonly onDrag: (dx: number, dy: number, done: boolean) => void }) {
  const view = useRef<View>(null);
  const origin = useRef<typeof onDrag | null>(null);
  useDrag(
    view,
    {
      begin: () => {
        origin.current = onDrag;
      },
      move: (drag) => origin.current?.(drag.x - drag.startX, drag.y - drag.startY, false),
      end: (drag) => origin.current?.(drag.x - drag.startX, drag.y - drag.startY, true),
    },
    'none',
  );
  return <View ref={view} aria-hidden style={[styles.handle, { left: x - 24, top: y - 24 }]} />;
}

const styles = StyleSheet.create({ handle: { position: 'absolute', width: 48, height: 48, cursor: 'pointer' } });
