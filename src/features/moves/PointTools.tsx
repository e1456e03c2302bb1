import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Surface } from 'react-native-paper';
import { movePoint, addPoint, removePoint, shapePoint } from '../../core/automation/editPoints';
import { SHAPES, type Shape } from '../../core/automation/point';
import type { ParamValue } from '../../core/params/param';
import { beatsToMs, fromEngineNumber, paramPosition, toEngineNumber } from '../../core/params/resolve';
import { removeLane, setLaneOn, setLanesTravel, setPoints } from '../../core/piece/edits/lanes';
import { channelOfTarget, paramOf } from '../../core/piece/find';
import { contextAt } from '../../core/piece/tempoOf';
import { figure } from '../../core/params/make';
import type { Lane } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { RailValue } from '../../ui/RailValue';
import { Button } from '../../ui/Button';
import { Chip } from '../../ui/Chip';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { useTokens } from '../../ui/theme';
import { laneTrack, trackAt, valueInUnit } from '../../core/piece/moves/lane';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { laneName } from '../shared/controller/laneName';
import { PassesButton } from './Passes';
import { Waiting } from './Waiting';
import { Thinning, ThinningSwitch, useTake } from './Thinning';

interface PointToolsProps {
  readonly lane: Lane;
  readonly chosen: number | null;
  readonly onChoose: (index: number | null) => void;
}

const NEXT: Record<Shape, Shape> = { line: 'hold', hold: 'curve', curve: 'line' };
const BENDS: readonly number[] = [0.6, -0.6];

/**
 * For the chosen point: its value and place to type, the shape after it, removing it; for the lane: a point at the
 * playhead, following it, clearing it.
 */
export function PointTools({ lane, chosen, onChoose }: PointToolsProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const param = paramOf(piece, lane.target);
  const { studio } = useStudio();
  const take = useTake(lane);
  const [thins, setThins] = useState(false);
  const { run } = useOpenPiece.getState();
  if (!param) return null;
  const point = chosen === null ? undefined : lane.points[chosen];
  const context = contextAt(piece, point?.beat ?? 0);
  const own = (value: number): number => (lane.unit === 'beats' ? beatsToMs(value, context) : value);
  const set = (points: Lane['points'], what: 'Move' | 'Add' | 'Remove' | 'Bend'): boolean =>
    run(setPoints, { lane: lane.id, points, what });
  const addHere = (): void => {
    // The playhead is on a whole sample; a point on a beat shall be on the beat exactly.
    const beat = Math.round(studio.beat * 1e4) / 1e4;
    const position = trackAt(laneTrack(piece, lane, param), beat);
    const added = addPoint(lane.points, beat, valueInUnit(piece, param, position, lane.unit));
    if (set(added.points, 'Add')) onChoose(added.index);
  };
  const setValue = (index: number, value: ParamValue): void => {
    const position = paramPosition(param, toEngineNumber(param, value, context));
    set(
      movePoint(lane.points, index, lane.points[index]!.beat, valueInUnit(piece, param, position, lane.unit)),
      'Move',
    );
  };
  return (
    <Surface
      elevation={0}
      role="toolbar"
      aria-label={`Tools for ${laneName(piece, lane, param)}`}
      style={[styles.tools, { borderColor: tokens.line, backgroundColor: tokens.card }]}
    >
      <View style={styles.head}>
        <Text
          variant="titleSmall"
          tone="coralInk"
          numberOfLines={1}
          style={styles.title}
        >{`∿ ${laneName(piece, lane, param)}${chosen === null ? '' : `, point ${chosen + 1}`}`}</Text>
        <IconButton
          icon="trash-2"
          label="Remove these moves"
          tone="mute"
          onPress={() => run(removeLane, { lane: lane.id })}
        />
      </View>
      {take && thins ? <Thinning lane={lane} take={take} /> : null}
      {point && chosen !== null && !(take && thins) ? (
        <View role="group" aria-label={`Point ${chosen + 1} of ${lane.points.length}`} style={styles.row}>
          <RailValue
            param={param}
            value={fromEngineNumber(param, own(point.value))}
            context={context}
            onSet={(value) => setValue(chosen, value)}
          />
          <RailValue
            param={PLACE}
            value={Math.round(point.beat * 1000) / 1000 + 1}
            context={context}
            onSet={(beat) =>
              typeof beat === 'number' && set(movePoint(lane.points, chosen, beat - 1, point.value), 'Move')
            }
          />
          <Text variant="bodySmall">beat</Text>
          <Button
            label={`Shape after this point: ${shapeName(point.shape, point.bend)}. Change`}
            onPress={() => set(nextShape(lane, chosen), 'Bend')}
          >
            {point.shape}
          </Button>
          {point.shape === 'curve' ? (
            <RailValue
              param={BEND}
              value={point.bend}
              context={context}
              onSet={(bend) =>
                typeof bend === 'number' &&
                set(shapePoint(lane.points, chosen, bend === 0 ? 'line' : 'curve', bend), 'Bend')
              }
            />
          ) : null}
          <IconButton
            icon="minus"
            label="Remove this point"
            mode="outlined"
            disabled={lane.points.length === 1}
            onPress={() => {
              if (set(removePoint(lane.points, chosen), 'Remove')) onChoose(null);
            }}
          />
        </View>
      ) : null}
      <Waiting lane={lane} />
      <View style={styles.row}>
        <Button label="Add a point at the playhead" icon="plus" onPress={addHere}>
          point here
        </Button>
        <Chip
          role="switch"
          label="Follow these moves"
          chosen={lane.on}
          tone="coralInk"
          onPress={() => run(setLaneOn, { lane: lane.id, on: !lane.on })}
        >
          {lane.on ? 'followed' : 'left aside'}
        </Chip>
        <PassesButton lane={lane} />
        {take ? <ThinningSwitch take={take} lane={lane} chosen={thins} onPress={() => setThins(!thins)} /> : null}
        <Travel lane={lane} />
      </View>
    </Surface>
  );
}

/** Whether the lane belongs to the track or travels with its clips; and the same for all lanes of the channel. */
function Travel({ lane }: { readonly lane: Lane }) {
  const piece = usePiece();
  const { run } = useOpenPiece.getState();
  const travels = lane.travels ?? false;
  const others = piece.lanes.filter(
    (other) => channelOfTarget(other.target) === channelOfTarget(lane.target) && (other.travels ?? false) !== travels,
  );
  if (!piece.tracks.some(({ id }) => id === channelOfTarget(lane.target))) return null;
  return (
    <>
      <Chip
        role="switch"
        label="Travels with clips"
        chosen={travels}
        tone="sandInk"
        onPress={() => run(setLanesTravel, { lanes: [lane.id], travels: !travels })}
      >
        {travels ? 'with clips' : 'with the track'}
      </Chip>
      {others.length > 0 ? (
        <Button
          label={`All lanes ${travels ? 'with clips' : 'with the track'}`}
          tone="sandInk"
          mode="text"
          onPress={() => run(setLanesTravel, { lanes: others.map(({ id }) => id), travels })}
        >
          all so
        </Button>
      ) : null}
    </>
  );
}

/** A point's place, typed as a beat counted from 1. */
const PLACE = figure({
  label: 'Beat',
  hint: 'Where the point lies, in beats from 1.',
  group: 'Point',
  unit: 'count',
  min: 1,
  max: 100_001,
  initial: 1,
});

/** How a curve runs, typed. */
const BEND = figure({
  label: 'Bend',
  hint: 'Above 0 the value hurries first, below 0 it waits.',
  group: 'Point',
  unit: 'ratio',
  min: -1,
  max: 1,
  initial: 0,
});

const shapeName = (shape: Shape, bend: number): string =>
  shape === 'curve' ? (bend > 0 ? 'curve, early' : 'curve, late') : shape;

/** Line, hold, a curve that hurries, a curve that waits, and round again. */
function nextShape(lane: Lane, index: number): Lane['points'] {
  const point = lane.points[index]!;
  if (point.shape === 'curve' && point.bend > 0) return shapePoint(lane.points, index, 'curve', BENDS[1]!);
  const shape = NEXT[point.shape];
  return shapePoint(lane.points, index, SHAPES.includes(shape) ? shape : 'line', shape === 'curve' ? BENDS[0]! : 0);
}

const styles = StyleSheet.create({
  tools: { gap: 6, paddingHorizontal: 14, paddingVertical: 8, borderTopWidth: 1 },
  head: { flexDirection: 'row', alignItems: 'center' },
  title: { flex: 1 },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 },
});
