import { gridLine } from '../../core/music/grid';
import { goalsOf, morphedAt, morphLanes, type Goal } from '../../core/piece/moves/snapshot';
import { beatsToSamples } from '../../core/music/tempo';
import { fromEngineNumber, paramAtPosition, toEngineNumber } from '../../core/params/resolve';
import { layMoves } from '../../core/piece/edits/lanes';
import { recallSnapshot } from '../../core/piece/edits/snapshots';
import { channelOfTarget, contextOf, effectOfTarget, findLane } from '../../core/piece/find';
import type { ParamValue } from '../../core/params/param';
import type { Piece, Snapshot, Target } from '../../core/piece/piece';
import { tempoOf } from '../../core/piece/tempoOf';
import type { Player } from '../../audio/player';
import { useOpenPiece } from '../../data/openPiece';
import { useRecording } from '../../data/recording';
import { valueIndex } from './target';
import { newId } from '../../data/newId';

/** How to move to a snapshot. */
export interface MorphOrder {
  readonly snapshot: Snapshot;
  /** Starts at the next multiple of a number of beats; 0 for at once. */
  readonly gridBeats: number;
  /** Duration in beats; 0 for a step. */
  readonly overBeats: number;
  /** Writes lanes instead of new base values. */
  readonly asMoves: boolean;
}

interface Way {
  readonly snapshot: Snapshot;
  readonly goals: readonly Goal[];
  readonly fromBeat: number;
  readonly overBeats: number;
  lastBeat: number;
}

/** Playing that jumps back by more than this, in beats, ends a morph where it was going. */
const JUMP_BEATS = 0.25;

/** What a morph needs of the studio: where the piece plays, and moving a value as a hand does. */
interface MorphHost {
  readonly beat: number;
  touch(target: Target, value: ParamValue): void;
}

/** Moves to snapshots while the piece plays: on the grid, over any number of beats. */
export class Morph {
  private way: Way | null = null;

  constructor(
    private readonly studio: MorphHost,
    private readonly player: Player,
  ) {}

  private get piece(): Piece {
    return useOpenPiece.getState().piece!;
  }

  start({ snapshot, gridBeats, overBeats, asMoves }: MorphOrder): void {
    this.finish();
    const { piece } = this;
    const fromBeat = nextLine(piece, this.studio.beat, gridBeats);
    if (asMoves) {
      this.write(snapshot, fromBeat, overBeats);
      return;
    }
    const goals = goalsOf(piece, snapshot, fromBeat).filter(({ target }) => !findLane(piece, target)?.on);
    this.way = { snapshot, goals, fromBeat, overBeats, lastBeat: this.studio.beat };
    if (!useRecording.getState().playing) this.finish();
    else if (overBeats === 0) this.hold(goals, beatsToSamples(fromBeat, tempoOf(piece), piece.sampleRate));
  }

  private write(snapshot: Snapshot, fromBeat: number, overBeats: number): void {
    const lanes = morphLanes(this.piece, snapshot, fromBeat, overBeats, () => newId());
    const { run, say } = useOpenPiece.getState();
    if (lanes.length === 0) say(`${snapshot.name} is how it stands already.`);
    else if (run(layMoves, { lanes, what: `Morph to ${snapshot.name}`.slice(0, 60) }))
      say(`${lanes.length} ${lanes.length === 1 ? 'lane goes' : 'lanes go'} to ${snapshot.name}`);
  }

  /** Sends all goals to the engine, for a future sample. */
  private hold(goals: readonly Goal[], atSample: number): void {
    const { piece } = this;
    for (const { target, param, value } of goals) {
      this.player.gesture({
        kind: 'hold',
        channel: channelOfTarget(target),
        slot: effectOfTarget(target),
        value: valueIndex(piece, target),
        to: toEngineNumber(param, value, contextOf(piece)),
        atSample,
      });
    }
  }

  /** Once a frame while playing. */
  follow(): void {
    const { way } = this;
    if (!way) return;
    const { beat } = this.studio;
    const share = way.overBeats > 0 ? (beat - way.fromBeat) / way.overBeats : beat < way.fromBeat ? -1 : 1;
    if (share >= 1 || beat < way.lastBeat - JUMP_BEATS) this.finish();
    else if (share >= 0)
      for (const goal of way.goals)
        this.studio.touch(
          goal.target,
          fromEngineNumber(goal.param, paramAtPosition(goal.param, morphedAt(goal, share))),
        );
    way.lastBeat = beat;
  }

  /** Jumps to the goals; for the end, and when playing stops before it. */
  finish(): void {
    const { way } = this;
    this.way = null;
    if (!way) return;
    const { run, say } = useOpenPiece.getState();
    run(recallSnapshot, { id: way.snapshot.id });
    const { piece } = this;
    for (const { target } of way.goals)
      this.player.gesture({
        kind: 'release',
        channel: channelOfTarget(target),
        slot: effectOfTarget(target),
        value: valueIndex(piece, target),
        to: 0,
        atSample: 0,
      });
    const laned = way.snapshot.values.filter(({ target }) => findLane(piece, target)?.on).length;
    if (laned > 0)
      say(`${way.snapshot.name}: ${laned} ${laned === 1 ? 'value follows its' : 'values follow their'} moves`);
  }
}

/** The part of a piece that defines the lines of grids. */
export type Timeline = Pick<Piece, 'loop' | 'tempo' | 'sampleRate' | 'lanes' | 'sections'>;

/** The next line of a grid from a beat on; the end of the loop where the line is behind it. */
export function nextLine(piece: Timeline, beat: number, gridBeats: number): number {
  const { loop } = piece;
  const line = gridLine(beat, gridBeats, tempoOf(piece));
  return loop.on && beat < loop.end && line >= loop.end ? loop.end - 1 / 64 : line;
}
