import { Ellipse, Line, Path } from 'react-native-svg';
import type { RepeatsPicture } from '../../../core/effects/pictures';
import type { Tap } from '../../../core/analysis/tapList';
import { secondsPerBeat, type Tempo } from '../../../core/music/tempo';
import { formatMs } from '../../../core/params/format';
import { ChartFrame, ChartText, VerticalGrid, RULER_HEIGHT } from '../../../ui/ChartFrame';
import { linePath } from '../../../ui/linePath';
import { useTokens } from '../../../ui/theme';
import { Grips, HandleDot, type OnPull } from './Grip';
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
const TOP = 22;
/** Pixels that the first time takes beside its handle. */
const FIGURE_WIDTH = 76;

/**
 * Repeats as ripples along a beat ruler: left above the waterline, right below, darker ink for darker sound. Handles
 * move times and levels.
 */
export function RepeatsChart({ picture, tempo, width, height, onPull }: RepeatsChartProps) {
  const tokens = useTokens();
  const beat = secondsPerBeat(tempo);
  const span = Math.max(Math.min(beat / 2, picture.spanSeconds), Math.min(picture.spanSeconds, beat * 16));
  const middle = TOP + (height - TOP - RULER_HEIGHT) / 2;
  const half = (height - TOP - RULER_HEIGHT) / 2;
  const room = width - PAD_LEFT - PAD_RIGHT;
  const x = (seconds: number): number => PAD_LEFT + (seconds / span) * room;
  const y = (level: number): number => middle - half * heightOf(level);
  const taps = picture.taps.filter((tap) => tap.seconds <= span);
  const handles = picture.handles.filter((handle) => handle.x <= span);
  const crest = (tap: Tap): number => y(Math.max(tap.left, tap.right));
  const slope = linePath(taps.map((tap, i) => ({ x: x(tap.seconds), y: crest(tap) })));
  const [first, second] = handles;
  /** The next handle would be over the figure of the first: it goes above both. */
  const isCrowded = first && second ? x(second.x) - x(first.x) < FIGURE_WIDTH : false;
  return (
    <ChartFrame
      label={describe(picture, taps)}
      width={width}
      height={height}
      over={
        <Grips
          handles={[...handles].reverse()}
          at={(handle) => ({ x: x(handle.x), y: y(handle.y) })}
          unitX={(px) => ((px - PAD_LEFT) / room) * span}
          unitY={(py) => levelAt((middle - py) / half)}
          onPull={onPull}
        />
      }
    >
      <VerticalGrid
        marks={timeRuler(beat, span).map(({ seconds, text }) => ({ x: x(seconds), text }))}
        top={TOP - 6}
        height={height}
      />
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
        <HandleDot key={i} x={x(handle.x)} y={y(handle.y)} radius={i === 0 ? 9 : 6} strokeWidth={i === 0 ? 3 : 2} />
      ))}
      {first ? (
        <ChartText
          x={Math.min(x(first.x) + (isCrowded ? -8 : 14), width - 60)}
          y={Math.max(13, y(first.y) - (isCrowded ? 16 : 4))}
          strong
        >
          {formatMs(picture.firstSeconds * 1000)}
        </ChartText>
      ) : null}
      <ChartText x={width - 8} y={TOP + 12} anchor="end">
        left
      </ChartText>
      <ChartText x={width - 8} y={height - RULER_HEIGHT - 5} anchor="end">
        right
      </ChartText>
    </ChartFrame>
  );
}

function describe(picture: RepeatsPicture, taps: readonly Tap[]): string {
  const list = taps.slice(0, 6).map((tap) => {
    const side = tap.left > tap.right * 1.5 ? 'left' : tap.right > tap.left * 1.5 ? 'right' : 'both sides';
    return `${formatMs(tap.seconds * 1000)} ${Math.round(20 * Math.log10(Math.max(tap.left, tap.right, 1e-5)))} dB ${side}`;
  });
  return `Repeats: ${list.join('; ') || 'none'}. First set to ${formatMs(picture.firstSeconds * 1000)}.`;
}

/** Marks at beats, or in milliseconds where the picture is shorter than half a beat. */
function timeRuler(beat: number, span: number): { readonly seconds: number; readonly text: string }[] {
  if (span > beat / 2) {
    const every = span / beat > 10 ? 2 : 1;
    const count = Math.floor(span / beat / every + 1e-6) + 1;
    return Array.from({ length: count }, (_, i) => ({ seconds: i * every * beat, text: String(i * every + 1) }));
  }
  const step = MS_STEPS.find((ms) => (span * 1000) / ms <= 8) ?? 200;
  const count = Math.floor((span * 1000) / step) + 1;
  return Array.from({ length: count }, (_, i) => ({
    seconds: (i * step) / 1000,
    text: i === 0 ? '0 ms' : String(i * step),
  }));
}

const MS_STEPS = [1, 2, 5, 10, 20, 50, 100];
