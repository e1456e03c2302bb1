import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { G, Line, Text as SvgText } from 'react-native-svg';
import { useTokens } from './theme';
import { FONT, FONT_STRONG, type Tone } from './tokens';

/** Height of the figures under a chart. */
export const RULER_HEIGHT = 22;

interface ChartFrameProps {
  /** What the chart shows, spoken. */
  readonly label: string;
  /** In pixels. */
  readonly width: number;
  readonly height: number;
  /** What is drawn: elements of an SVG document. */
  readonly children: ReactNode;
  /** Drawn behind it by itself, for what moves. */
  readonly behind?: ReactNode;
  /** Views over it that are touched. */
  readonly over?: ReactNode;
}

/** A chart: one image to a screen reader, with what moves behind it and what is touched over it. */
export function ChartFrame({ label, width, height, children, behind, over }: ChartFrameProps) {
  return (
    <View style={{ width, height }}>
      {behind}
      <View role="img" aria-label={label} style={StyleSheet.absoluteFill}>
        <Svg width={width} height={height}>
          {children}
        </Svg>
      </View>
      {over}
    </View>
  );
}

interface ChartTextProps {
  /** Of the baseline, in pixels. */
  readonly x: number;
  readonly y: number;
  /** Which end of the text is at x. */
  readonly anchor?: 'start' | 'middle' | 'end';
  /** For what a chart says first. */
  readonly strong?: boolean;
  readonly tone?: Tone;
  readonly children: string;
}

/** Text in a chart. */
export function ChartText({ x, y, anchor = 'start', strong = false, tone, children }: ChartTextProps) {
  const tokens = useTokens();
  return (
    <SvgText
      x={x}
      y={y}
      textAnchor={anchor}
      fontFamily={strong ? FONT_STRONG : FONT}
      fontSize={strong ? 13 : 12}
      fill={tokens[tone ?? (strong ? 'ink' : 'mute')]}
    >
      {children}
    </SvgText>
  );
}

interface VerticalGridProps {
  readonly marks: readonly { readonly x: number; readonly text: string }[];
  /** Upper end of the lines, in pixels. */
  readonly top: number;
  /** Of the whole chart, in pixels. */
  readonly height: number;
  /** True to let the first figure begin at its line instead of being centred on it. */
  readonly startsAtEdge?: boolean;
}

/** Vertical lines of a grid, with their figures under the chart. */
export function VerticalGrid({ marks, top, height, startsAtEdge = false }: VerticalGridProps) {
  const { line } = useTokens();
  return (
    <G>
      {marks.map(({ x, text }, i) => (
        <G key={text}>
          <Line x1={x} x2={x} y1={top} y2={height - RULER_HEIGHT} stroke={line} strokeWidth={1} />
          <ChartText x={x} y={height - 6} anchor={startsAtEdge && i === 0 ? 'start' : 'middle'}>
            {text}
          </ChartText>
        </G>
      ))}
    </G>
  );
}

interface HorizontalGridProps {
  readonly marks: readonly { readonly y: number; readonly text: string }[];
  /** Ends of the lines, in pixels. */
  readonly left: number;
  readonly right: number;
}

/** Horizontal lines of a grid, with their figures to the left of it. */
export function HorizontalGrid({ marks, left, right }: HorizontalGridProps) {
  const { line } = useTokens();
  return (
    <G>
      {marks.map(({ y, text }) => (
        <G key={text}>
          <Line x1={left} x2={right} y1={y} y2={y} stroke={line} strokeWidth={1} />
          <ChartText x={left - 6} y={y + 4} anchor="end">
            {text}
          </ChartText>
        </G>
      ))}
    </G>
  );
}
