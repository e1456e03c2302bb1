import { gridLine } from '../../core/music/grid';
import { playGrid } from '../../core/piece/playGrid';
import { tempoOf } from '../../core/piece/tempoOf';
import {
  remainingAfter,
  positionsAt,
  restPositions,
  restPoint,
  type FieldPoint,
  type ParamPosition,
} from '../../core/piece/moves/fieldMotion';
import type { Piece } from '../../core/piece/piece';
import type { PlayField } from '../../core/piece/playField';
import { targetKey } from '../../core/piece/find';

/** What a hand on a field needs of the studio. */
export interface FieldHost {
  readonly piece: Piece;
  /** The beat that is being computed. */
  readonly beat: number;
  readonly playing: boolean;
  moveTo(position: ParamPosition, atBeat?: number): void;
  end(target: ParamPosition['target']): void;
  leaveInPlace(name: string, positions: readonly ParamPosition[]): void;
}

/** On a grid, positions are told to the engine so many seconds before their line. */
const AHEAD_SECONDS = 0.08;
/** A second finger makes the first one so much finer. */
const FINE = 0.2;

interface ReturnToRest {
  readonly from: readonly ParamPosition[];
  readonly fromPoint: FieldPoint;
  readonly startedAt: number;
}

const within = (x: number): number => Math.max(0, Math.min(1, x));

/** A touch of a field: its position, the parameters it moves, and the return after its end. */
export class FieldHand {
  /** Position of the field's mark; null without a touch or a return. */
  point: FieldPoint | null = null;
  private down = false;
  private positions: readonly ParamPosition[] = [];
  private back: ReturnToRest | null = null;
  private scheduledLine = -1;

  constructor(
    private field: PlayField,
    private readonly host: () => FieldHost,
  ) {}

  setField(field: PlayField): void {
    this.field = field;
  }

  begin(point: FieldPoint): void {
    this.down = true;
    this.back = null;
    this.go(point);
  }

  /** A key begins where the field is: on its way back, or at rest. */
  beginAtRest(): void {
    const { piece, beat } = this.host();
    this.begin(this.point ?? restPoint(piece, this.field, beat));
  }

  /** @param fine a second finger is on the field */
  moveBy(dx: number, dy: number, fine: boolean): void {
    if (!this.down || !this.point) return;
    const share = fine ? FINE : 1;
    this.go({ x: within(this.point.x + dx * share), y: within(this.point.y + dy * share) });
  }

  private get gridBeats(): number {
    const { piece, playing, beat } = this.host();
    return playing ? playGrid(piece, this.field.grid, beat) : 0;
  }

  private go(point: FieldPoint): void {
    this.point = point;
    if (this.gridBeats > 0) return;
    const host = this.host();
    this.positions = positionsAt(host.piece, this.field, point);
    for (const position of this.positions) host.moveTo(position);
  }

  /** The finger leaves. @param now in ms */
  end(now: number): void {
    if (!this.down || !this.point) return;
    this.down = false;
    const field = this.field;
    const host = this.host();
    if (this.positions.length === 0) {
      this.point = null;
      return;
    }
    if (field.lift === 'stay') {
      host.leaveInPlace(field.name, this.positions);
      this.rest();
    } else this.back = { from: this.positions, fromPoint: this.point, startedAt: now };
  }

  private rest(): void {
    this.back = null;
    this.point = null;
    this.positions = [];
  }

  /** Ends the touch at once, without a return. */
  cancel(): void {
    this.down = false;
    for (const { target } of this.positions) this.host().end(target);
    this.rest();
  }

  /** Once a frame. @param now in ms */
  frame(now: number): boolean {
    if (this.back) this.returnToRest(this.back, now);
    else if (this.down && this.point) this.scheduleOnGrid(this.point);
    return this.back !== null;
  }

  /** Sends the position of the hand for the next line of the grid, shortly before it. */
  private scheduleOnGrid(point: FieldPoint): void {
    const grid = this.gridBeats;
    if (grid === 0) return;
    const host = this.host();
    const line = gridLine(host.beat, grid, tempoOf(host.piece));
    if (line === this.scheduledLine || line - host.beat > (AHEAD_SECONDS * host.piece.tempo.bpm) / 60) return;
    this.scheduledLine = line;
    this.positions = positionsAt(host.piece, this.field, point);
    for (const position of this.positions) host.moveTo(position, line);
  }

  private returnToRest({ from, fromPoint, startedAt }: ReturnToRest, now: number): void {
    const host = this.host();
    const { piece, beat } = host;
    const field = this.field;
    const whole = (field.liftBeats * 60_000) / piece.tempo.bpm;
    const left = remainingAfter(field.lift, whole > 0 ? (now - startedAt) / whole : 1);
    if (left === 0) {
      for (const { target } of from) host.end(target);
      this.rest();
      return;
    }
    const rests = new Map(
      restPositions(piece, field, beat).map(({ target, position }) => [targetKey(target), position]),
    );
    for (const { target, position } of from) {
      const rest = rests.get(targetKey(target)) ?? position;
      host.moveTo({ target, position: within(rest + (position - rest) * left) });
    }
    const rest = restPoint(piece, field, beat);
    this.point = {
      x: within(rest.x + (fromPoint.x - rest.x) * left),
      y: within(rest.y + (fromPoint.y - rest.y) * left),
    };
  }
}
