import type { Player } from '../../audio/player';
import type { Gesture } from '../../core/engine/gesture';
import { beatsToSamples, samplesToBeats } from '../../core/music/tempo';
import type { ParamValue } from '../../core/params/param';
import { fromEngineNumber, paramAtPosition, paramPosition, toEngineNumber } from '../../core/params/resolve';
import { effectOf } from '../../core/effects/catalogue';
import { choosePreset, takeValues } from '../../core/piece/edits/chain';
import { leaveValues } from '../../core/piece/edits/fields';
import {
  baseValue,
  channelIds,
  channelOfTarget,
  contextOf,
  effectOfTarget,
  findLane,
  findSlot,
  paramOf,
  sameTarget,
  targetKey,
} from '../../core/piece/find';
import { baseNumber } from '../../core/piece/moves/lane';
import { playedNumber, type ParamPosition } from '../../core/piece/moves/fieldMotion';
import type { EffectTarget, Piece, Target } from '../../core/piece/piece';
import { tempoOf } from '../../core/piece/tempoOf';
import { useOpenPiece } from '../../data/openPiece';
import { useRecording } from '../../data/recording';
import { nextLine } from './morph';
import type { MoveRecorder } from './moveRecorder';
import { holdTargets, usePlayed, type PresetChoice } from './played';
import { valueIndex } from './target';

/** Bars after which a released hold has ended: its longest grids are four bars, for start and end. */
const LONGEST_RELEASE_BARS = 16;

/**
 * Plays parameters while the piece plays: heard as soon as the engine takes it, or on a line of a grid, and recorded at
 * the very sample at which the engine did, so that what is played back is what was heard.
 */
export class LivePlay {
  /** Where something played began or will begin, by its target, and the grid for which it waits. */
  private readonly begins = new Map<string, { readonly beat: number; readonly gridBeats: number }>();
  private readonly targets = new Map<string, Target>();
  /** Released targets that wait for their line. */
  private readonly ending = new Map<string, Target>();
  /** Targets, by their keys, for which a position of a field waits for its line, or has come on it. */
  private readonly scheduled = new Set<string>();
  /** Beats at which holds were released; they may sound on until the next line of their grid. */
  private readonly releasedAt = new Map<string, number>();
  /** Holds that stay off until playing stops, though a lane says otherwise. */
  private offUntilStop: Target[] = [];

  constructor(
    private readonly player: Player,
    private readonly recorder: MoveRecorder,
    private readonly note: (target: Target) => void,
  ) {}

  private get piece(): Piece {
    return useOpenPiece.getState().piece!;
  }

  /** The beat that is being computed. */
  private get beat(): number {
    const { piece } = this;
    return samplesToBeats(this.player.position, tempoOf(piece), piece.sampleRate);
  }

  /**
   * A parameter is moved to a setting for as long as it is played. What an earlier hand left waiting for it is dropped:
   * it would begin or end what this one plays.
   * @param gridBeats it waits for the next multiple of so many beats; 0 for at once
   * @param line the beat for which it waits by itself, as a hold does on its own grid
   */
  begin(target: Target, value: ParamValue, gridBeats = 0, line: number | null = null): void {
    const param = paramOf(this.piece, target);
    if (!param) return;
    const number = toEngineNumber(param, value, contextOf(this.piece));
    const at = useRecording.getState().playing ? nextLine(this.piece, this.beat, gridBeats) : 0;
    const key = targetKey(target);
    if (this.ending.delete(key) || this.begins.has(key)) this.gesture('cancel', target, 0, 0);
    this.begins.set(key, { beat: at, gridBeats });
    this.markPlayed(target, gridBeats > 0 ? at : line, value);
    this.send(target, number, gridBeats > 0 ? at : 0);
  }

  /** Moves a played parameter to a position, as by a field. @param atBeat 0 for at once */
  moveTo({ target, position }: ParamPosition, atBeat = 0): void {
    const param = paramOf(this.piece, target);
    if (!param) return;
    const key = targetKey(target);
    if (!this.targets.has(key)) this.markPlayed(target, null, null);
    if (atBeat > 0) this.scheduled.add(key);
    // A hand that goes on at once does not come back to where it was for the line.
    else if (this.scheduled.delete(key)) this.gesture('cancel', target, 0, 0);
    this.send(target, paramAtPosition(param, position), atBeat);
  }

  private markPlayed(target: Target, waitsUntil: number | null, value: ParamValue | null): void {
    this.note(target);
    this.targets.set(targetKey(target), target);
    usePlayed.getState().put(targetKey(target), { since: this.beat, waitsUntil, value });
  }

  private send(target: Target, wanted: number, atBeat: number): void {
    const { piece } = this;
    const records = this.recorder.on(channelOfTarget(target));
    const param = paramOf(piece, target)!;
    const number = playedNumber(piece, target, wanted);
    this.gesture('hold', target, number, atBeat, (sample) => {
      if (!records) return;
      const reading = { position: paramPosition(param, number), number };
      this.recorder.readApplied(target, reading, sample);
    });
  }

  private isHold(target: Target): boolean {
    return holdTargets(this.piece).some((hold) => sameTarget(hold, target));
  }

  /** The engine's number of a target's base value. */
  private baseNumber(target: Target): number {
    const { piece } = this;
    const param = paramOf(piece, target);
    return param ? baseNumber(piece, target, param) : 0;
  }

  private finish(target: Target, sample: number): void {
    this.ending.delete(targetKey(target));
    this.recorder.finishPlayed(target, sample);
  }

  /**
   * Applies a preset to an effect while it is played, on the next line of a grid: as an edit, or, where it is recorded,
   * as steps of everything that the preset has.
   */
  takePreset({ channel, effect: slotId }: EffectTarget, preset: PresetChoice, gridBeats: number): void {
    const { piece } = this;
    const slot = findSlot(piece, channel, slotId);
    if (!slot) return;
    const { params, holds } = effectOf(slot.effect);
    const { playing } = useRecording.getState();
    const line = gridBeats > 0 && playing ? nextLine(piece, this.beat, gridBeats) : 0;
    const records = this.recorder.on(channel);
    // One that waits already has set more than differs from the piece.
    const all = records || slotId in usePlayed.getState().presets;
    const changes = Object.entries(preset.values).filter(
      ([id, value]) => params[id] && !holds?.includes(id) && (all || value !== slot.values[id]),
    );
    usePlayed.getState().step(slotId, preset);
    changes.forEach(([id, value], i) => {
      const target: Target = { kind: 'effect', channel, effect: slotId, param: id };
      const number = toEngineNumber(params[id]!, value, contextOf(piece));
      const isLast = i === changes.length - 1;
      if (records) {
        this.targets.set(targetKey(target), target);
        this.send(target, number, line);
      } else this.gesture('hold', target, number, line, isLast ? () => this.keepPreset(channel, slotId) : undefined);
    });
    if (!records && (!playing || changes.length === 0)) this.keepPreset(channel, slotId);
  }

  /** The preset that an effect was stepped to has taken effect: it becomes an edit, one for several steps. */
  private keepPreset(channel: string, slotId: string): void {
    const preset = usePlayed.getState().presets[slotId];
    const slot = findSlot(this.piece, channel, slotId);
    if (!preset || !slot) return;
    usePlayed.getState().step(slotId, null);
    const { holds, paramIds } = effectOf(slot.effect);
    const { run } = useOpenPiece.getState();
    const values = Object.fromEntries(Object.entries(preset.values).filter(([id]) => !holds?.includes(id)));
    if (preset.own) run(takeValues, { channel, slot: slotId, values, name: preset.name });
    else run(choosePreset, { channel, slot: slotId, preset: preset.id });
    for (const id of paramIds)
      if (!holds?.includes(id)) this.gesture('release', { kind: 'effect', channel, effect: slotId, param: id }, 0, 0);
  }

  /** Applies presets that still wait for their line when playing stops, unless they were to be recorded. */
  private applyWaitingPresets(): void {
    for (const slotId of Object.keys(usePlayed.getState().presets)) {
      const channel = channelIds(this.piece).find((id) => findSlot(this.piece, id, slotId));
      if (channel === undefined || this.recorder.on(channel)) continue;
      for (const param of effectOf(findSlot(this.piece, channel, slotId)!.effect).paramIds)
        this.gesture('cancel', { kind: 'effect', channel, effect: slotId, param }, 0, 0);
      this.keepPreset(channel, slotId);
    }
  }

  /** What was played returns to its value without a hand. @param gridBeats on the next line of this grid */
  end(target: Target, gridBeats = 0): void {
    const { piece } = this;
    const param = paramOf(piece, target);
    const key = targetKey(target);
    if (!this.targets.delete(key) || !param) return;
    usePlayed.getState().drop(key);
    const began = this.begins.get(key);
    this.begins.delete(key);
    this.scheduled.delete(key);
    if (this.isHold(target)) this.releasedAt.set(key, this.beat);
    const at = this.endOf(gridBeats, began);
    if (at > 0) this.ending.set(key, target);
    // A position that waits for its line would come after the end and stay.
    else this.gesture('cancel', target, 0, 0);
    // Its lane takes it up again by itself.
    if (!findLane(piece, target)?.on) this.gesture('hold', target, this.baseNumber(target), at);
    this.gesture('release', target, 0, at, (sample) => this.finish(target, sample));
  }

  /** The beat at which it ends; 0 for at once. One that waits for its line sounds for at least one. */
  private endOf(gridBeats: number, began: { readonly beat: number; readonly gridBeats: number } | undefined): number {
    if (!useRecording.getState().playing) return 0;
    const { piece, beat } = this;
    const waits = began !== undefined && began.beat > beat;
    const grid = waits ? Math.max(gridBeats, began.gridBeats) : gridBeats;
    if (grid === 0) return 0;
    return nextLine(piece, waits ? began.beat + grid : Math.max(beat, (began?.beat ?? 0) + 1e-3), grid);
  }

  /** Keeps the played values: as new base values in one edit, or, where recorded, until playing stops. */
  leaveInPlace(name: string, places: readonly ParamPosition[]): void {
    const { piece } = this;
    const kept = places.filter(({ target }) => !this.recorder.on(channelOfTarget(target)));
    const values = kept.flatMap(({ target, position }) => {
      const param = paramOf(piece, target);
      return param ? [{ target, value: fromEngineNumber(param, paramAtPosition(param, position)) }] : [];
    });
    if (values.length > 0) useOpenPiece.getState().run(leaveValues, { name, values });
    for (const { target } of kept) {
      this.targets.delete(targetKey(target));
      usePlayed.getState().drop(targetKey(target));
      this.gesture('release', target, 0, 0);
    }
  }

  /**
   * Everything that is played, or waits for its line, ends within a block, and so does every hold of the piece,
   * whatever holds it.
   */
  letGoOfAll(): void {
    const { piece } = this;
    const holds = holdTargets(piece);
    for (const target of [...this.targets.values(), ...this.ending.values()])
      if (!this.isHold(target)) this.letGoOf(target);
    for (const target of holds) this.letGoOfHold(target);
    const left = holds.filter((target) => baseValue(piece, target) === true);
    if (left.length > 0)
      useOpenPiece
        .getState()
        .run(leaveValues, { name: 'let go of all', values: left.map((target) => ({ target, value: false })) });
  }

  private letGoOf(target: Target): void {
    this.forget(target);
    this.gesture('hold', target, this.baseNumber(target), 0, (sample) => this.finish(target, sample));
    this.gesture('release', target, 0, 0);
  }

  /**
   * Ends a hold at once: its end grid is set to none until it has ended. Switch and grid are recorded, so that playback
   * ends it at the same sample.
   */
  private letGoOfHold(target: EffectTarget): void {
    const isPlayed = this.maySound(target);
    this.forget(target);
    const ends: EffectTarget = { ...target, param: 'endsOn' };
    const hasGrid = baseValue(this.piece, ends) !== 'free' || findLane(this.piece, ends)?.on === true;
    if (hasGrid) {
      this.targets.set(targetKey(ends), ends);
      const free = toEngineNumber(paramOf(this.piece, ends)!, 'free', contextOf(this.piece));
      if (isPlayed) this.send(ends, free, 0);
      else this.gesture('hold', ends, free, 0);
    }
    this.gesture('hold', target, 0, 0, (sample) => {
      this.finish(target, sample);
      if (hasGrid) this.end(ends);
    });
    // A hold that its lane holds would begin again at once: it stays off until playing stops.
    if (findLane(this.piece, target)?.on) this.offUntilStop.push(target);
    else this.gesture('release', target, 0, 0);
  }

  /** Whether a hold is held, or was released so recently that it may still sound. */
  private maySound(hold: EffectTarget): boolean {
    const key = targetKey(hold);
    const released = this.releasedAt.get(key) ?? -Infinity;
    return this.targets.has(key) || this.beat - released < LONGEST_RELEASE_BARS * this.piece.tempo.beatsPerBar;
  }

  /** Nothing plays a parameter any more, and nothing waits for it. */
  private forget(target: Target): void {
    const key = targetKey(target);
    this.targets.delete(key);
    this.ending.delete(key);
    this.begins.delete(key);
    this.scheduled.delete(key);
    this.releasedAt.delete(key);
    usePlayed.getState().drop(key);
    this.gesture('cancel', target, 0, 0);
  }

  /** Playing stops: nothing is played any more. */
  stop(): void {
    for (const target of [...this.targets.values()]) this.end(target);
    this.applyWaitingPresets();
    usePlayed.setState({ presets: {} });
    this.releasedAt.clear();
    for (const target of this.offUntilStop) this.gesture('release', target, 0, 0);
    this.offUntilStop = [];
  }

  private gesture(
    kind: Gesture['kind'],
    target: Target,
    to: number,
    atBeat: number,
    onApplied?: (sample: number) => void,
  ): void {
    const { piece } = this;
    this.player.gesture(
      {
        kind,
        channel: channelOfTarget(target),
        slot: effectOfTarget(target),
        value: valueIndex(piece, target),
        to,
        atSample: atBeat > 0 ? beatsToSamples(atBeat, tempoOf(piece), piece.sampleRate) : 0,
      },
      onApplied,
    );
  }
}
