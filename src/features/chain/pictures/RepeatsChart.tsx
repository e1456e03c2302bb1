import { StyleSheet, View } from 'react-native';
import Svg, { Circle, Ellipse, G, Line, Path, Text as SvgText } from 'react-native-svg';
import type { RepeatsPicture } from '../../../core/effects/pictures';
import type { Tap } from '../../../core/analysis/tapList';
import { secondsPerBeat, type Tempo } from '../../../core/music/tempo';
import { formatMs } from '../../../core/params/format';
import { useTokens } from '../../../ui/theme';
import { FONT, FONT_STRONG, type Tokens } from '../../../ui/tokens';
import { Grip, type OnPull } from './Grip';
import { heightOf, levelAt, Ripple, rippleWidth } from './ripples';

interface RepeatsChartProps {
  readonly picture: RepeatsPicture;
  readonly tempo: Tempo;
  readonly width: number;
  readonly height: number;
  readonly onPull: OnPull;
}

const PAD_LEFT = 34;
const PAD_RIGHT = 12;
const RULER = 22;
const TOP = 22;

/**
 * Repeats as ripples along a beat ruler: left above the waterline, right below, darker ink for darker sound. Handles
 * move times and levels.
 */
export function RepeatsChart({ picture, tempo, width, height, onPull }: RepeatsChartProps) {
  const tokens = useTokens();
  const beat = secondsPerBeat(tempo);
  const span = Math.max(Math.min(beat / 2, picture.spanSeconds), Math.min(picture.spanSeconds, beat * 16));
  const middle = TOP + (height - TOP - RULER) / 2;
  const half = (height - TOP - RULER) / 2;
  const room = width - PAD_LEFT - PAD_RIGHT;
  const x = (seconds: number): number => PAD_LEFT + (seconds / span) * room;
  const y = (level: number): number => middle - half * heightOf(level);
  const taps = picture.taps.filter((tap) => tap.seconds <= span);
  const handles = picture.handles.filter((handle) => handle.x <= span);
  const crest = (tap: Tap): number => y(Math.max(tap.left, tap.right));
  const slope = taps
    .map((tap, i) => `${i === 0 ? 'M' : 'L'}${x(tap.seconds).toFixed(1)} ${crest(tap).toFixed(1)}`)
    .join('');
  const first = handles[0];
  return (
    <View style={{ width, height }}>
      <View role="img" aria-label={describe(picture, taps)} style={StyleSheet.absoluteFill}>
        <Svg width={width} height={height}>
          {span > beat / 2 ? (
            <BeatRuler beat={beat} span={span} x={x} height={height} tokens={tokens} />
          ) : (
            <MsRuler span={span} x={x} height={height} tokens={tokens} />
          )}
          <Line x1={8} x2={width - 4} y1={middle} y2={middle} stroke={tokens.mute} strokeWidth={1} />
          <Ellipse cx={x(0)} cy={middle} rx={8} ry={half * 0.98} fill={tokens.sand} />
          {taps.map((tap, i) => (
            <Ripple
              key={i}
              tap={tap}
              x={x(tap.seconds)}
              middle={middle}
              half={half}
              wide={rippleWidth(taps, i, x)}
              tokens={tokens}
            />
          ))}
          <Path d={slope} stroke={tokens.sea} strokeWidth={1.4} strokeDasharray="2 5" fill="none" />
          {handles.map((handle, i) => (
            <Circle
              key={i}
              cx={x(handle.x)}
              cy={y(handle.y)}
              r={i === 0 ? 9 : 6}
              fill={tokens.card}
              stroke={tokens.sea}
              strokeWidth={i === 0 ? 3 : 2}
            />
          ))}
          {first ? (
            <SvgText
              x={Math.min(x(first.x) + 14, width - 60)}
              y={Math.max(13, y(first.y) - 4)}
              fontFamily={FONT_STRONG}
              fontSize={13}
              fill={tokens.ink}
            >
              {formatMs(picture.firstSeconds * 1000)}
            </SvgText>
          ) : null}
          <SvgText x={width - 8} y={TOP + 12} textAnchor="end" fontFamily={FONT} fontSize={12} fill={tokens.mute}>
            left
          </SvgText>
          <SvgText
            x={width - 8}
            y={height - RULER - 5}
            textAnchor="end"
            fontFamily={FONT}
            fontSize={12}
            fill={tokens.mute}
          >
            right
          </SvgText>
        </Svg>
      </View>
      {[...handles].reverse().map((handle) => (
        <Grip
          key={handle.label}
          handle={handle}
          at={{ x: x(handle.x), y: y(handle.y) }}
          unitX={(px) => ((px - PAD_LEFT) / room) * span}
          unitY={(py) => levelAt((middle - py) / half)}
          onPull={onPull}
        />
      ))}
    </View>
  );
}

function describe(picture: RepeatsPicture, taps: readonly Tap[]): string {
  const list = taps.slice(0, 6).map((tap) => {
    const side = tap.left > tap.right * 1.5 ? 'left' : tap.right > tap.left * 1.5 ? 'right' : 'both sides';
    return `${formatMs(tap.seconds * 1000)} ${Math.round(20 * Math.log10(Math.max(tap.left, tap.right, 1e-5)))} dB ${side}`;
  });
  return `Repeats: ${list.join('; ') || 'none'}. First set to ${formatMs(picture.firstSeconds * 1000)}.`;
}

interface RulerProps {
  readonly beat: number;
  readonly span: number;
  readonly x: (seconds: number) => number;
  readonly height: number;
  readonly tokens: Tokens;
}

function BeatRuler({ beat, span, x, height, tokens }: RulerProps) {
  const every = span / beat > 10 ? 2 : 1;
  const beats = Array.from({ length: Math.floor(span / beat / every + 1e-6) + 1 }, (_, i) => i * every);
  return (
    <G>
      {beats.map((at) => (
        <G key={at}>
          <Line
            x1={x(at * beat)}
            x2={x(at * beat)}
            y1={TOP - 6}
            y2={height - RULER}
            stroke={tokens.line}
            strokeWidth={1}
          />
          <SvgText
            x={x(at * beat)}
            y={height - 6}
            textAnchor="middle"
            fontFamily={FONT}
            fontSize={12}
            fill={tokens.mute}
          >
            {String(at + 1)}
          </SvgText>
        </G>
      ))}
    </G>
  );
}

const MS_STEPS = [1, 2, 5, 10, 20, 50, 100];

/** For pictures shorter than half a beat. */
function MsRuler({ span, x, height, tokens }: Omit<RulerProps, 'beat'>) {
  const step = MS_STEPS.find((ms) => (span * 1000) / ms <= 8) ?? 200;
  const marks = Array.from({ length: Math.floor((span * 1000) / step) + 1 }, (_, i) => i * step);
  return (
    <G>
      {marks.map((ms) => (
        <G key={ms}>
          <Line
            x1={x(ms / 1000)}
            x2={x(ms / 1000)}
            y1={TOP - 6}
            y2={height - RULER}
            stroke={tokens.line}
            strokeWidth={1}
          />
          <SvgText
            x={x(ms / 1000)}
            y={height - 6}
            textAnchor="middle"
            fontFamily={FONT}
            fontSize={12}
            fill={tokens.mute}
          >
            {ms === 0 ? '0 ms' : String(ms)}
          </SvgText>
        </G>
      ))}
    </G>
  );
}
