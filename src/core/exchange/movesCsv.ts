import Papa from 'papaparse';
import * as z from 'zod';
import { pointSchema, type Point } from '../automation/point';
import { findLane } from '../piece/find';
import type { Lane, Piece } from '../piece/piece';
import { namedTarget, saidTarget, targetNamed, type NamedTarget } from './targetNames';

const COLUMNS = ['channel', 'effect', 'number', 'parameter', 'unit', 'beat', 'value', 'shape', 'bend'] as const;

/** The lanes that were read, and those without a target, with the reason. */
export interface ReadMoves {
  readonly lanes: readonly Lane[];
  readonly missed: readonly string[];
}

/** Lanes as a table, a point a row, targets by names; figures with all their digits. */
export function writeMovesCsv(piece: Piece, lanes: readonly Lane[]): string {
  const rows = lanes.flatMap((lane) => {
    const { channel, effect, number, parameter } = namedTarget(piece, lane.target);
    return lane.points.map(({ beat, value, shape, bend }) => [
      channel,
      effect,
      number,
      parameter,
      lane.unit,
      beat,
      value,
      shape,
      bend,
    ]);
  });
  return Papa.unparse({ fields: [...COLUMNS], data: rows }, { newline: '\n' });
}

/** A number is required: an empty cell is an error. */
const written = z.string().trim().min(1).pipe(z.coerce.number());

const row = z.object({
  channel: z.string(),
  effect: z.string(),
  number: written.pipe(z.number().int().min(1)),
  parameter: z.string().min(1),
  unit: z.enum(['own', 'beats']),
  beat: written,
  value: written,
  shape: pointSchema.shape.shape,
  bend: written,
});

/**
 * Reads what `writeMovesCsv` wrote, into a piece that has the same names. Lanes that are there are replaced.
 * @param newId makes an id for a lane that is not
 */
export function readMovesCsv(piece: Piece, text: string, newId: () => string): ReadMoves {
  const { data, meta } = Papa.parse<Record<string, string>>(text.trim(), { header: true, skipEmptyLines: true });
  const absent = COLUMNS.filter((column) => !meta.fields?.includes(column));
  if (absent.length > 0)
    return {
      lanes: [],
      missed: [`This is no table of moves: the column ${absent[0]} is not there. Nothing was changed.`],
    };
  const groups = new Map<
    string,
    { readonly name: NamedTarget; readonly unit: Lane['unit']; readonly points: Point[] }
  >();
  const missed: string[] = [];
  data.forEach((raw, i) => {
    const read = row.safeParse(raw);
    const point = read.success
      ? pointSchema.safeParse({
          beat: read.data.beat,
          value: read.data.value,
          shape: read.data.shape,
          bend: read.data.bend,
        })
      : null;
    if (!read.success || !point?.success) {
      missed.push(
        `Row ${i + 2}: ${(read.error ?? point?.error)?.issues[0]?.path.join('.') ?? 'it'} cannot be read; the row was left out.`,
      );
      return;
    }
    const { channel, effect, number, parameter, unit } = read.data;
    const key = JSON.stringify([channel, effect, number, parameter]);
    const group = groups.get(key) ?? { name: { channel, effect, number, parameter }, unit, points: [] };
    group.points.push(point.data);
    groups.set(key, group);
  });
  const lanes = [...groups.values()].flatMap(({ name, unit, points }): Lane[] => {
    const target = targetNamed(piece, name);
    if (!target)
      missed.push(
        `${saidTarget(name)}: there is no such parameter in this piece; its ${points.length} points were left out.`,
      );
    return target
      ? [
          {
            ...(findLane(piece, target) ?? { id: newId(), target, on: true }),
            unit,
            points: points.sort((a, b) => a.beat - b.beat),
          },
        ]
      : [];
  });
  return { lanes, missed };
}
