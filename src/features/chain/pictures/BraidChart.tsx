import { Circle, G, Path, Text as SvgText } from 'react-native-svg';
import { effectOf } from '../../../core/effects/catalogue';
import type { BraidPicture } from '../../../core/effects/pictures';
import { formatDb, gainToDb } from '../../../core/params/format';
import type { Strand } from '../../../core/piece/piece';
import { ChartFrame, ChartText } from '../../../ui/ChartFrame';
import { useTokens } from '../../../ui/theme';
import { FONT_WATER } from '../../../ui/tokens';

interface BraidChartProps {
  readonly picture: BraidPicture;
  readonly strands: readonly Strand[];
  readonly width: number;
  readonly height: number;
}

const TOP = 22;
const FOOT = 26;

/** Strands as lines from left to right with their effects as dots: the higher the further left. */
export function BraidChart({ picture, strands, width, height }: BraidChartProps) {
  const tokens = useTokens();
  const lanes = strands.map((strand) => ({ ...strand, ...picture.strands[strand.place - 1]! }));
  const span = height - TOP - FOOT;
  const y = (i: number): number => TOP + (span * (i + 0.5)) / lanes.length;
  const back = (pan: number): number => TOP + (span * (pan + 1)) / 2;
  const [from, split, join, end] = [14, 62, width - 84, width - 34];
  const said = lanes.map(
    ({ name, input, level, pan, alignMs, chain }) =>
      `${name} takes ${input}, ${chain.length} effects, ${formatDb(gainToDb(level))}, pan ${Math.round(pan * 100)}${alignMs > 0 ? `, ${alignMs.toFixed(1)} ms late` : ''}`,
  );
  return (
    <ChartFrame label={`Braid of ${lanes.length}: ${said.join('; ')}.`} width={width} height={height}>
      <Path d={`M${end} ${TOP}L${end} ${TOP + span}`} stroke={tokens.line} strokeWidth={1} />
      <ChartText x={end + 8} y={TOP + 5}>
        L
      </ChartText>
      <ChartText x={end + 8} y={TOP + span + 4}>
        R
      </ChartText>
      {lanes.map((lane, i) => {
        const open = picture.plays === null || picture.plays === lane.place;
        const at = y(i);
        const to = back(lane.pan);
        const colour = open ? (lane.chain.length > 0 ? tokens.sea : tokens.sand) : tokens.line;
        const bend = (x1: number, y1: number, x2: number, y2: number): string =>
          `M${x1} ${y1}C${(x1 + x2) / 2} ${y1} ${(x1 + x2) / 2} ${y2} ${x2} ${y2}`;
        const late = (lane.alignMs / 100) * (join - split) * 0.3;
        return (
          <G key={lane.place}>
            <Path
              d={bend(from, TOP + span / 2, split, at)}
              stroke={open ? tokens.sand : tokens.line}
              strokeWidth={2.5}
              fill="none"
            />
            {late > 0 ? (
              <Path
                d={`M${split} ${at}L${split + late} ${at}`}
                stroke={tokens.sand}
                strokeWidth={2}
                strokeDasharray="2 4"
              />
            ) : null}
            <Path
              d={`M${split + late} ${at}L${join} ${at}${bend(join, at, end, to).slice(`M${join} ${at}`.length)}`}
              stroke={colour}
              strokeWidth={1 + 4 * Math.min(1.2, lane.level)}
              fill="none"
            />
            {lane.chain.map((slot, k) => {
              const x = split + late + ((join - split - late) * (k + 1)) / (lane.chain.length + 1);
              return (
                <G key={slot.id}>
                  <Circle
                    cx={x}
                    cy={at}
                    r={8}
                    fill={tokens.card}
                    stroke={open ? tokens.ink : tokens.line}
                    strokeWidth={2}
                  />
                  <ChartText x={x} y={at + 22} anchor="middle">
                    {effectOf(slot.effect).name}
                  </ChartText>
                </G>
              );
            })}
            <SvgText
              x={split + 4}
              y={at - 12}
              fontFamily={FONT_WATER}
              fontStyle="italic"
              fontSize={15}
              fill={open ? tokens.ink : tokens.mute}
            >{`${lane.name} · ${lane.input}`}</SvgText>
            <ChartText x={join} y={at - 12} anchor="end">
              {formatDb(gainToDb(lane.level))}
            </ChartText>
          </G>
        );
      })}
      <Circle cx={from} cy={TOP + span / 2} r={5} fill={tokens.sand} />
      <ChartText x={width - 12} y={height - 7} anchor="end">
        comes back at
      </ChartText>
    </ChartFrame>
  );
}
