import { countOf, metreSpans } from '../music/metre';
import { parseMidi, writeMidi, type MidiData, type MidiEvent } from 'midi-file';
import { laneTrack, trackAt, valueInUnit } from '../piece/moves/lane';
import type { Point, Shape } from '../automation/point';
import { SHAPES } from '../automation/point';
import { thin } from '../automation/thin';
import type { Tempo } from '../music/tempo';
import { findLane, paramOf } from '../piece/find';
import { tempoOf } from '../piece/tempoOf';
import type { Lane, Piece } from '../piece/piece';
import type { LaneRangePoint, LaneRange } from '../piece/moves/laneRange';
import type { ReadMoves } from './movesCsv';
import { namedTarget, saidTarget, targetNamed, type NamedTarget } from './targetNames';

const TICKS_PER_BEAT = 960;
/** Interval at which lines and curves are sampled. */
const STEP_TICKS = 30;
const FINE = 16_383;
const COARSE = 127;
/** Controllers that have a finer half 32 above them and no fixed meaning: 0 and 32 select banks. */
const FIRST_CONTROLLER = 1;
const CONTROLLERS = 31;
const MARK = 'zephiro';

export interface MidiMoves extends ReadMoves {
  /** Controllers of no known name, as stretches to be pasted onto any rail. */
  readonly loose: readonly LaneRange[];
}

interface At {
  readonly tick: number;
  readonly events: readonly MidiEvent[];
}

/**
 * Lanes as a MIDI file of format 1: a track for tempo and measure, then one per lane under its name, its positions on
 * the rail as a controller of its own; the shape of every point is in a text event beside it.
 * @param bits 14 in two controllers, or 7 in one
 */
export function writeMovesMidi(piece: Piece, lanes: readonly Lane[], bits: 7 | 14): Uint8Array {
  const head: MidiEvent[] = [
    { deltaTime: 0, type: 'trackName', text: piece.name },
    ...timeEvents(tempoOf(piece)),
    { deltaTime: 0, type: 'endOfTrack' },
  ];
  const data: MidiData = {
    header: { format: 1, numTracks: lanes.length + 1, ticksPerBeat: TICKS_PER_BEAT },
    tracks: [head, ...lanes.map((lane, i) => laneEvents(piece, lane, i, bits))],
  };
  return Uint8Array.from(writeMidi(data));
}

/** Events at ticks as a track has them: each after the one before. */
const inTurn = (events: readonly { readonly tick: number; readonly event: MidiEvent }[]): MidiEvent[] =>
  [...events]
    .sort((a, b) => a.tick - b.tick)
    .map(({ tick, event }, i, all) => ({ ...event, deltaTime: tick - (all[i - 1]?.tick ?? 0) }));

/** Metres and tempi, and their changes. */
const timeEvents = (tempo: Tempo): MidiEvent[] => inTurn([...metreEvents(tempo), ...tempoEvents(tempo)]);

const metreEvents = (tempo: Tempo): { tick: number; event: MidiEvent }[] =>
  metreSpans(tempo).map((span) => ({
    tick: Math.round(span.beat * TICKS_PER_BEAT),
    event: {
      deltaTime: 0,
      type: 'timeSignature',
      numerator: countOf(span),
      denominator: span.unit,
      metronome: 96 / span.unit,
      thirtyseconds: 8,
    },
  }));

/** Ramps as the short stretches by which they are played. */
function tempoEvents({ bpm, map }: Tempo): { tick: number; event: MidiEvent }[] {
  const stretches = map
    ? Array.from(map.beats, (beat, i) => ({ tick: Math.round(beat * TICKS_PER_BEAT), bpm: map.bpm[i]! }))
    : [{ tick: 0, bpm }];
  const changes = stretches.filter((stretch, i) => i === 0 || stretch.bpm !== stretches[i - 1]!.bpm);
  return changes.map((change) => ({
    tick: change.tick,
    event: { deltaTime: 0, type: 'setTempo', microsecondsPerBeat: Math.round(60_000_000 / change.bpm) },
  }));
}

function laneEvents(piece: Piece, lane: Lane, index: number, bits: 7 | 14): MidiEvent[] {
  const param = paramOf(piece, lane.target);
  const { channel, effect, number, parameter } = namedTarget(piece, lane.target);
  const name: MidiEvent = {
    deltaTime: 0,
    type: 'trackName',
    text: ascii(JSON.stringify([MARK, channel, effect, number, parameter, lane.unit])),
  };
  if (!param) return [name, { deltaTime: 0, type: 'endOfTrack' }];
  const track = laneTrack(piece, lane, param);
  const control = (position: number): MidiEvent[] => controllers(index, position, bits);
  const moments = new Map<number, At>();
  lane.points.forEach((point, i) => {
    const tick = Math.round(point.beat * TICKS_PER_BEAT);
    const next = lane.points[i + 1];
    moments.set(tick, {
      tick,
      events: [
        { deltaTime: 0, type: 'text', text: `${MARK} ${point.shape} ${point.bend}` },
        ...control(track.positions[i]!),
      ],
    });
    if (!next || track.shapes[i] === SHAPES.indexOf('hold')) return;
    const end = Math.round(next.beat * TICKS_PER_BEAT);
    for (let at = tick + STEP_TICKS; at < end; at += STEP_TICKS)
      moments.set(at, { tick: at, events: control(trackAt(track, at / TICKS_PER_BEAT)) });
  });
  let last = 0;
  const events = [...moments.values()]
    .sort((a, b) => a.tick - b.tick)
    .flatMap(({ tick, events: now }) =>
      now.map((event, i): MidiEvent => {
        const deltaTime = i === 0 ? tick - last : 0;
        last = tick;
        return { ...event, deltaTime };
      }),
    );
  return [name, ...events, { deltaTime: 0, type: 'endOfTrack' }];
}

function controllers(index: number, position: number, bits: 7 | 14): MidiEvent[] {
  const channel = Math.floor(index / CONTROLLERS) % 16;
  const controllerType = FIRST_CONTROLLER + (index % CONTROLLERS);
  const event = (type: number, value: number): MidiEvent => ({
    deltaTime: 0,
    type: 'controller',
    channel,
    controllerType: type,
    value,
  });
  if (bits === 7) return [event(controllerType, Math.round(position * COARSE))];
  const fine = Math.round(position * FINE);
  return [event(controllerType, fine >> 7), event(controllerType + 32, fine & 127)];
}

/** Text of a MIDI file is bytes: other characters are written as JSON escapes. */
const ascii = (text: string): string =>
  text.replace(/[^\x20-\x7e]/g, (letter) => `\\u${letter.charCodeAt(0).toString(16).padStart(4, '0')}`);

interface Moment {
  readonly beat: number;
  position: number;
  readonly shape: Shape | null;
  readonly bend: number;
}

/** Reads controllers into lanes by the names of their tracks; those without a known name are kept as stretches. */
export function readMovesMidi(piece: Piece, bytes: Uint8Array, newId: () => string): MidiMoves {
  let data: MidiData;
  try {
    data = parseMidi(bytes);
  } catch {
    return { lanes: [], loose: [], missed: ['This is no MIDI file that can be read. Nothing was changed.'] };
  }
  const perBeat = data.header.ticksPerBeat ?? TICKS_PER_BEAT;
  const lanes: Lane[] = [];
  const loose: LaneRange[] = [];
  const missed: string[] = [];
  for (const events of data.tracks) {
    const named = nameOf(events);
    const streams = streamsOf(events, perBeat);
    for (const moments of streams) {
      const target = named ? targetNamed(piece, named.name) : null;
      if (named && !target)
        missed.push(
          `${saidTarget(named.name)}: there is no such parameter in this piece; it can be pasted onto another rail.`,
        );
      if (!named || !target) {
        loose.push(looseStretch(moments));
        continue;
      }
      const param = paramOf(piece, target)!;
      const points = pointsOf(moments).map(({ beat, position, shape, bend }): Point => ({
        beat,
        value: valueInUnit(piece, param, position, named.unit),
        shape,
        bend,
      }));
      lanes.push({ ...(findLane(piece, target) ?? { id: newId(), target, on: true }), unit: named.unit, points });
    }
  }
  if (lanes.length + loose.length === 0) missed.push('There is no controller in this file. Nothing was changed.');
  return { lanes, loose, missed };
}

function nameOf(events: readonly MidiEvent[]): { readonly name: NamedTarget; readonly unit: Lane['unit'] } | null {
  for (const event of events) {
    if (event.type !== 'trackName') continue;
    try {
      const [mark, channel, effect, number, parameter, unit] = JSON.parse(event.text) as unknown[];
      if (mark === MARK)
        return {
          name: {
            channel: String(channel),
            effect: String(effect),
            number: Number(number),
            parameter: String(parameter),
          },
          unit: unit === 'beats' ? 'beats' : 'own',
        };
    } catch {
      // A name of another kind.
    }
  }
  return null;
}

/** What each controller of a track does, its finer half joined to it. */
function streamsOf(events: readonly MidiEvent[], perBeat: number): Moment[][] {
  const streams = new Map<string, Moment[]>();
  let tick = 0;
  let mark: { readonly shape: Shape; readonly bend: number } | null = null;
  for (const event of events) {
    tick += event.deltaTime;
    if (event.type === 'text') mark = markOf(event.text) ?? mark;
    if (event.type !== 'controller') continue;
    const finer =
      event.controllerType >= 32 &&
      event.controllerType < 64 &&
      streams.has(`${event.channel}/${event.controllerType - 32}`);
    const key = `${event.channel}/${finer ? event.controllerType - 32 : event.controllerType}`;
    const moments = streams.get(key) ?? [];
    streams.set(key, moments);
    const last = moments[moments.length - 1];
    if (finer && last) {
      last.position = (Math.round(last.position * COARSE) * 128 + event.value) / FINE;
      continue;
    }
    moments.push({
      beat: tick / perBeat,
      position: event.value / COARSE,
      shape: mark?.shape ?? null,
      bend: mark?.bend ?? 0,
    });
    mark = null;
  }
  return [...streams.values()];
}

function markOf(text: string): { readonly shape: Shape; readonly bend: number } | null {
  const [mark, shape, bend] = text.split(' ');
  const known = SHAPES.find((candidate) => candidate === shape);
  return mark === MARK && known ? { shape: known, bend: Number(bend) || 0 } : null;
}

/** Points from the text events; without these, the fewest within half a step of a controller. */
function pointsOf(moments: readonly Moment[]): (Omit<Point, 'value'> & { readonly position: number })[] {
  const marked = moments.flatMap(({ beat, position, shape, bend }) => (shape ? [{ beat, position, shape, bend }] : []));
  if (marked.length > 0) return marked;
  const risen = moments.filter(({ beat }, i) => beat !== moments[i + 1]?.beat);
  return thin(risen, 0.5 / COARSE).map(({ beat, position }) => ({ beat, position, shape: 'line' as const, bend: 0 }));
}

function looseStretch(moments: readonly Moment[]): LaneRange {
  const points = pointsOf(moments);
  const from = points[0]!.beat;
  return {
    lengthBeats: points[points.length - 1]!.beat - from,
    unit: 'own',
    points: points.map((point): LaneRangePoint => ({ ...point, beat: point.beat - from, value: point.position })),
  };
}
