import type { Player } from '../../audio/player';
import { trackAt, laneTrack } from '../../core/piece/moves/lane';
import { laneFromPass, laneFromStep, laneFromSteps, TOLERANCE } from '../../core/piece/moves/record';
import { clippedPass } from '../../core/piece/moves/takes';
import { samplesToBeats } from '../../core/music/tempo';
import { tempoOf } from '../../core/piece/tempoOf';
import type { Reading } from '../../core/automation/thin';
import { paramAtPosition } from '../../core/params/resolve';
import { layMoves, recordMove } from '../../core/piece/edits/lanes';
import { channelOfTarget, effectOfTarget, findLane, isWaiting, paramOf, targetKey } from '../../core/piece/find';
import { TEMPO, type Lane, type Piece, type Target } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { handMoment } from '../../ui/handTime';
import { type Take, modeOf, useRecording } from '../../data/recording';
import { heardBeat, valueIndex } from './target';
import { newId } from '../../data/newId';

interface Pass {
  readonly target: Target;
  readings: Reading[];
  /** Released but continuing: the last value is written until playing stops. */
  latched: boolean;
  /** Its readings are steps, as the engine took them; the last is held until it ends. */
  readonly played: boolean;
}

/** Playing that jumps back by more than this, in beats, begins new passes. */
const JUMP_BEATS = 0.25;
/** Passes of a lane that are kept apart. */
const MAX_PASSES = 16;

/** Records touches while playing as lanes, at the beats at which they were heard, in the mode of each channel. */
export class MoveRecorder {
  private readonly passes = new Map<string, Pass>();
  private lastBeat = 0;

  constructor(private readonly player: Player) {}

  private get piece(): Piece {
    return useOpenPiece.getState().piece!;
  }

  private get beat(): number {
    return heardBeat(this.piece, this.player.heardAt(handMoment()));
  }

  /** True while touches on a channel are recorded. */
  on(channel: string): boolean {
    const recording = useRecording.getState();
    return recording.armed && recording.playing && modeOf(recording, channel) !== 'read';
  }

  /**
   * Playing begins: every followed lane of a channel in write is written from here on, at first at its present value.
   */
  begin(): void {
    const { piece } = this;
    const beat = this.beat;
    this.lastBeat = beat;
    for (const lane of piece.lanes) {
      const param = paramOf(piece, lane.target);
      if (
        !param ||
        !lane.on ||
        param === TEMPO ||
        isWaiting(piece, lane.target) ||
        !this.on(channelOfTarget(lane.target)) ||
        modeOf(useRecording.getState(), channelOfTarget(lane.target)) !== 'write'
      )
        continue;
      const position = trackAt(laneTrack(piece, lane, param), beat);
      this.passes.set(targetKey(lane.target), {
        target: lane.target,
        readings: [{ beat, position }],
        latched: true,
        played: false,
      });
      this.gesture('hold', lane.target, paramAtPosition(param, position));
    }
  }

  /** A hand is at a position of the rail. */
  read(target: Target, position: number): void {
    this.readAt(target, { beat: this.beat, position });
  }

  /** A gesture took effect at a sample, as reported by the engine: that sample is recorded. */
  readApplied(target: Target, reading: Omit<Reading, 'beat'>, sample: number): void {
    this.readAt(target, { ...reading, beat: this.beatOf(sample) }, true);
  }

  private beatOf(sample: number): number {
    const { piece } = this;
    return samplesToBeats(sample, tempoOf(piece), piece.sampleRate);
  }

  private readAt(target: Target, reading: Reading, played = false): void {
    const { beat } = reading;
    const key = targetKey(target);
    const pass = this.passes.get(key) ?? { target, readings: [], latched: false, played };
    const last = pass.readings[pass.readings.length - 1];
    // The value since the hand let go is written up to here, or the line would slope.
    if (pass.latched && last && beat > last.beat) pass.readings.push({ ...last, beat: beat - 1e-6 });
    pass.latched = false;
    pass.readings.push(reading);
    this.passes.set(key, pass);
  }

  /** A touch ended. @returns true when its value is kept until playing stops */
  letGo(target: Target): boolean {
    const mode = modeOf(useRecording.getState(), channelOfTarget(target));
    const pass = this.passes.get(targetKey(target));
    if (!pass) return false;
    if (mode === 'latch' || mode === 'write') {
      pass.latched = true;
      return true;
    }
    this.finish([pass]);
    return false;
  }

  /** A played gesture ended at a sample, as reported by the engine: it is recorded as the steps that were heard. */
  finishPlayed(target: Target, sample: number): void {
    const pass = this.passes.get(targetKey(target));
    if (pass) this.finish([{ ...pass, latched: false }], this.beatOf(sample), false);
  }

  /** Once a frame: when playing has gone back, by a loop or a hand, passes end where it left and begin where it is. */
  follow(): void {
    const { piece, beat } = this;
    const computed = heardBeat(piece, this.player.position);
    const back = this.lastBeat - JUMP_BEATS;
    // What is heard is an estimate, which may fall back under load; what is computed falls back only where playing
    // does.
    const jumped = beat < back && computed < back;
    if (jumped && this.passes.size > 0) {
      const open = [...this.passes.values()];
      this.finish(open, this.lastBeat, false);
      for (const { target, readings, latched, played } of open) {
        if (latched || played)
          this.passes.set(targetKey(target), {
            target,
            readings: [{ ...readings[readings.length - 1]!, beat }],
            latched,
            played,
          });
      }
    }
    // An estimate that ran ahead of what is computed would look like a jump once it has fallen back.
    this.lastBeat = jumped ? beat : Math.max(Math.min(beat, computed), this.lastBeat);
  }

  /** Playing stops: all open passes end here, and write falls back to touch. */
  stop(): void {
    this.finish([...this.passes.values()], this.beat);
    const { mode, modes } = useRecording.getState();
    const after = Object.fromEntries(
      Object.entries(modes).map(([channel, own]) => [channel, own === 'write' ? 'touch' : own]),
    );
    useRecording.setState({ mode: mode === 'write' ? 'touch' : mode, modes: after });
  }

  /**
   * Writes passes as one edit.
   * @param until where those that go on by themselves end
   * @param release whether the engine goes back to its lanes
   */
  private finish(passes: readonly Pass[], until = this.beat, release = true): void {
    const takes = passes.flatMap((pass) => this.take(pass, until));
    for (const { target, latched } of passes) {
      this.passes.delete(targetKey(target));
      if (latched && release) this.gesture('release', target, 0);
    }
    if (takes.length === 0) return;
    const { run, say } = useOpenPiece.getState();
    const lanes = takes.map(({ lane }) => lane);
    const done =
      lanes.length === 1 ? run(recordMove, { lane: lanes[0]!, how: 'ride' }) : run(layMoves, { lanes, what: 'Record' });
    if (!done) return;
    const { takes: known, passes: before } = useRecording.getState();
    const kept = takes.map(
      (take) => [take.lane.id, { ...take, lane: findLane(this.piece, take.lane.target) ?? take.lane }] as const,
    );
    // A single value is not a take.
    const passed = kept
      .filter(([, { readings }]) => readings.length > 0)
      .map(([id, take]) => [id, [...(before[id] ?? []), take].slice(-MAX_PASSES)] as const);
    useRecording.setState({
      takes: { ...known, ...Object.fromEntries(kept) },
      passes: { ...before, ...Object.fromEntries(passed) },
    });
    const readings = takes.reduce((sum, take) => sum + take.readings.length, 0);
    const points = lanes.reduce((sum, { points: { length } }) => sum + length, 0);
    const what = lanes.length === 1 ? 'Move recorded' : `${lanes.length} moves recorded`;
    // How many readings there were is of interest where thinning left fewer points.
    say(readings > points ? `${what}: ${readings} readings, ${points} points` : `${what}: ${points} points`);
  }

  private take({ target, readings, latched, played }: Pass, until: number): Take[] {
    const { piece } = this;
    const last = readings[readings.length - 1]!;
    const { punch } = useRecording.getState();
    const whole = latched && until > last.beat ? [...readings, { ...last, beat: until }] : readings;
    const all = punch ? clippedPass(whole, punch.start, punch.end) : whole;
    if (all.length === 0) return [];
    const id = newId();
    const single = all.length === 1;
    const lane =
      played && all === readings
        ? laneFromSteps(piece, target, all, until, id)
        : single
          ? laneFromStep(piece, target, all[0]!.beat, all[0]!.position, id)
          : laneFromPass(piece, target, all, id, {
              tolerance: TOLERANCE,
              seamBeats: useRecording.getState().seamBeats,
            });
    return lane
      ? [{ lane, before: findLane(piece, target) ?? null, readings: single ? [] : all, tolerance: TOLERANCE }]
      : [];
  }

  private gesture(kind: 'hold' | 'release', target: Target, to: number): void {
    this.player.gesture({
      kind,
      channel: channelOfTarget(target),
      slot: effectOfTarget(target),
      value: valueIndex(this.piece, target),
      to,
      atSample: 0,
    });
  }
}

/** The take's lane, thinned to another tolerance, as it would be over the previous one. */
export function thinnedAgain(piece: Piece, take: Take, tolerance: number, seamBeats: number): Lane | null {
  const others = piece.lanes.filter(({ id }) => id !== take.lane.id);
  return laneFromPass(
    { ...piece, lanes: take.before ? [...others, take.before] : others },
    take.lane.target,
    take.readings,
    take.lane.id,
    { tolerance, seamBeats },
  );
}
