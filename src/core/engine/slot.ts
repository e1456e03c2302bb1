import { STEP_FRAMES, type StereoBlock } from '../dsp/blocks';
import { BALANCES, dryGain, wetGain } from '../effects/common';
import { MAX_STRANDS } from '../effects/braid/params';
import { effectOf } from '../effects/catalogue';
import { implementationOf } from '../effects/implementations';
import { type EffectProcessor } from '../effects/define';
import { MemoizedUnary } from '../dsp/memoizedUnary';
import { smoothToward, onePoleCoefficient } from '../dsp/onePole';
import type { PreparedImpulse } from '../dsp/convolution';
import { LatencyCompensator } from '../effects/latencyCompensator';
import { ClickFreeSwitch } from './clickFreeSwitch';
import { EFFECT_ON } from '../piece/piece';
import type { Scratch } from './blockMixer';
import type { PlanSlot } from './plan';
import type { EngineContext } from './engineContext';
import { RunningStrand, type InnerChain } from './strand';
import { ParameterSmoother } from './parameterSmoother';
import type { TempoClock } from './tempoClock';

/** What of an effect is auditioned, for comparison; normally its `mix`. */
export type Hear = 'mix' | 'wet' | 'dry' | 'difference';

/** Time of switching on, off and between audition modes. */
const SWITCH_SECONDS = 0.008;
/**
 * Time constant by which the tail of an effect that was switched off fades: one with feedback over 100 % would never
 * end.
 */
const SPILL_SECONDS = 15;

const EQUAL_POWER = BALANCES.indexOf('mix');
const LINEAR_MIX = BALANCES.indexOf('linear');

/**
 * A running effect of a chain: its processor, its smoothed values, and the mix of wet and dry.
 */
export class RunningSlot {
  readonly values: ParameterSmoother;
  /** Its on switch; among its values it comes last. */
  private readonly switched: ParameterSmoother;
  hear: Hear = 'mix';
  /** Peaks of the last step: of the input, and of the wet part of the output. */
  dryPeak = 0;
  wetPeak = 0;
  /** Number of steps in which a non-finite sample was caught. */
  trips = 0;
  private processor: EffectProcessor;
  /** Whether its processor has latency: kept here since every effect is asked at every step. */
  private readonly looksAhead: boolean;
  private readonly mayBeAlone: boolean;
  /** A hold: it records silence while it is asleep, and may sound without new input. */
  private readonly keepsHistory: boolean;
  /** Index of the sample-accurate switch; -1 for none. */
  private readonly iSwitch: number;
  private readonly share: number;
  private readonly iBalance: number;
  private readonly iMix: number;
  private readonly iDry: number;
  private readonly iWet: number;
  private readonly iTrim: number;
  private readonly dryOf = new MemoizedUnary(dryGain);
  private readonly wetOf = new MemoizedUnary(wetGain);
  private dryNow = 1;
  private wetNow = 0;
  /**
   * Gain of the input, faded with the switch, so that no step enters the repeats.
   */
  private feed = 0;
  private asleep = true;
  /** Parameters that hold sound for ever; overridden while it is off. */
  private readonly holds: readonly number[];
  private readonly clickFreeSwitch: ClickFreeSwitch;
  private readonly spillShare: number;
  private spill = 1;
  private impulse = '';
  /** Effects on the wet sound alone; null until there are any. */
  private wetPath: InnerChain<RunningSlot> | null = null;
  private readonly strands = new Map<number, RunningStrand<RunningSlot>>();
  private running: readonly RunningStrand<RunningSlot>[] = [];
  /** Itself and all effects nested in it, in the order of the plan. */
  every: RunningSlot[] = [];
  /** Delays the dry sound by the latency of the wet; only where there is any. */
  private dryCompensator: LatencyCompensator | null = null;
  private leaving = false;
  /** What its oscillators are synced to: bars, other note values, or time. */
  private turnsBy: 'bar' | 'beat' | 'time' = 'time';

  /** @param entering true when sound may be passing: it then fades in */
  constructor(
    public plan: PlanSlot,
    private readonly context: EngineContext,
    private readonly scratch: Scratch,
    private readonly makeChain: () => InnerChain<RunningSlot>,
    entering = false,
  ) {
    const { sampleRate } = context;
    const definition = effectOf(plan.effect);
    this.processor = implementationOf(plan.effect).createProcessor(sampleRate);
    this.looksAhead = this.processor.latency !== undefined;
    this.processor.setTime?.(context.time);
    this.keepsHistory = this.processor.idle !== undefined;
    this.mayBeAlone = this.processor.suppressesDry !== undefined;
    const params = definition.paramIds.map((id) => definition.params[id]!);
    const index = (id: string): number => definition.paramIds.indexOf(id);
    this.iSwitch = this.processor.setSwitchOffset ? index(definition.sampleAccurateSwitch!) : -1;
    // A hold that begins within a step reads its values in that step, so that they must not be deferred.
    const defers = params.map(({ mutesOnChange }, i) => !this.keepsHistory && i !== this.iSwitch && !mutesOnChange);
    this.values = new ParameterSmoother(params, plan.values, sampleRate, defers);
    this.switched = new ParameterSmoother([EFFECT_ON], Float64Array.of(plan.on ? 1 : 0), sampleRate, [true]);
    this.clickFreeSwitch = new ClickFreeSwitch(params, this.values.now, this.looksAhead);
    this.share = onePoleCoefficient(SWITCH_SECONDS, STEP_FRAMES, sampleRate);
    this.iBalance = index('balance');
    this.iMix = index('mix');
    this.iDry = index('dry');
    this.iWet = index('wet');
    this.iTrim = index('trim');
    this.adoptInner(entering);
    this.processor.reset(this.placeSeconds, this.values.now);
    this.holds = (definition.holds ?? []).map(index);
    this.spillShare = Math.exp(-STEP_FRAMES / (SPILL_SECONDS * sampleRate));
    if (entering) return;
    this.feed = this.on ? 1 : 0;
    this.updateGains(1);
  }

  /** Samples from the start of its hold to the end of the last step; 0 while nothing is held. */
  get heldFrames(): number {
    return this.processor.heldFrames ?? 0;
  }

  /** Lag of a hold's read position behind its input, in samples. */
  get lagFrames(): number {
    return this.processor.lagFrames ?? 0;
  }

  /** What moves in its picture: of a hold `heldFrames`, of a braid `strandHeard`; 0 for all else. */
  get activity(): number {
    return this.processor.strandHeard ?? this.processor.heldFrames ?? 0;
  }

  /** Passes the impulse of the plan to the processor, each once. */
  useImpulses(prepared: ReadonlyMap<string, PreparedImpulse>): void {
    const key = this.plan.impulse?.key;
    const found = key !== undefined && key !== this.impulse ? prepared.get(key) : undefined;
    if (!found) return;
    this.impulse = key!;
    this.processor.setImpulse?.(found);
  }

  /** Connects the sidechain input of the processor. */
  listenTo(channels: ReadonlyMap<string, StereoBlock>): void {
    this.processor.setSidechain?.(this.plan.side === null ? null : (channels.get(this.plan.side) ?? null));
  }

  adopt(plan: PlanSlot): void {
    this.plan = plan;
    this.leaving = false;
    this.values.rebase(plan.values);
    this.switched.rebase(Float64Array.of(plan.on ? 1 : 0));
    for (const row of [this.values, this.switched]) {
      row.clearLanes();
      row.clearLinks();
    }
    this.values.followTempo(plan.follows, 1, 1);
    this.adoptInner(true);
  }

  /** Sets the plans of nested chains. @param entering true when new effects in them shall fade in */
  private adoptInner(entering: boolean): void {
    const { follows } = this.plan;
    this.turnsBy = follows.includes(-2) ? 'bar' : follows.includes(-1) ? 'beat' : 'time';
    const { wetPath, strands } = this.plan;
    if (wetPath.length > 0) this.wetPath ??= this.makeChain();
    this.wetPath?.adopt(wetPath, entering);
    if (this.processor.setStrands) this.adoptStrands(entering);
    if (this.mayBeLate) this.dryCompensator ??= new LatencyCompensator(this.context.sampleRate, this.context.mixer);
    this.every = [
      this,
      ...(this.wetPath?.every ?? []),
      ...strands.flatMap(({ place }) => this.strands.get(place)?.chain.every ?? []),
    ];
  }

  private adoptStrands(entering: boolean): void {
    const { strands } = this.plan;
    for (const [place, { chain }] of this.strands) {
      if (strands.some((strand) => strand.place === place)) continue;
      chain.adopt([], true);
      if (!chain.silent) continue;
      chain.release();
      this.strands.delete(place);
    }
    for (const { place, slots } of strands) {
      const kept = this.strands.get(place);
      const running = kept ?? new RunningStrand<RunningSlot>(this.makeChain());
      running.chain.adopt(slots, entering && kept !== undefined);
      this.strands.set(place, running);
    }
    this.running = [...this.strands.values()];
    if (this.latestStrand() > 0) for (const strand of this.running) strand.prepareCompensation(this.context.sampleRate);
    this.processor.setStrands!(
      Array.from({ length: MAX_STRANDS }, (_, i) =>
        strands.some(({ place }) => place === i + 1) ? this.strands.get(i + 1)! : null,
      ),
    );
  }

  /** It was removed from the chain: its input closes and its tail rings out. */
  leave(): void {
    this.leaving = true;
    this.values.clearLanes();
    this.values.clearLinks();
  }

  /** Frees its pooled rings and those of nested effects; it must not be used afterwards. */
  release(): void {
    this.dryCompensator?.release();
    this.wetPath?.release();
    for (const { chain } of this.strands.values()) chain.release();
  }

  /** The smoother of one of its values; `indexIn` is the index there. */
  rowOf(value: number): ParameterSmoother {
    return value < this.values.now.length ? this.values : this.switched;
  }

  indexIn(value: number): number {
    return value < this.values.now.length ? value : 0;
  }

  private get on(): boolean {
    return !this.leaving && this.switched.now[0]! >= 0.5;
  }

  /** False when nothing in it can have latency. */
  get mayBeLate(): boolean {
    return this.looksAhead || this.wetPath !== null || this.running.length > 0;
  }

  /**
   * Its latency in samples, the same on and off, so that switching moves nothing in time; 0 once it was removed.
   */
  get latency(): number {
    if (this.leaving) return 0;
    const own = this.looksAhead ? this.processor.latency! : 0;
    return own + this.latestStrand() + (this.wetPath === null ? 0 : this.wetPath.latency);
  }

  private latestStrand(): number {
    let latest = 0;
    for (let i = 0; i < this.running.length; i += 1) latest = Math.max(latest, this.running[i]!.chain.latency);
    return latest;
  }

  private alignStrands(): void {
    const latest = this.latestStrand();
    for (let i = 0; i < this.running.length; i += 1) this.running[i]!.latest = latest;
  }

  followTempo({ tempoRatio, barRatio }: TempoClock): void {
    this.values.followTempo(this.plan.follows, tempoRatio, barRatio);
  }

  takeGuardGain(): number {
    return this.processor.takeGuardGain();
  }

  get silent(): boolean {
    if (this.dryCompensator && !this.dryCompensator.silent) return false;
    return this.asleep || (this.processor.silent && (this.wetPath?.silent ?? true));
  }

  /** Jumps to its values and position; for the start of playing. */
  locate(): void {
    this.values.jump();
    this.switched.jump();
    this.wetPath?.locate();
    for (const strand of this.strands.values()) strand.chain.locate();
    this.alignStrands();
    for (const strand of this.running) strand.resetCompensation();
    if (!this.silent) return;
    this.clickFreeSwitch.jump(this.values.now);
    this.processor.locate(this.placeSeconds, this.values.now);
    this.dryCompensator?.reset(this.latency);
    this.feed = this.on ? 1 : 0;
    this.updateGains(1);
    this.asleep = true;
  }

  /** Clears all sound and returns to the state at the start of playing. */
  forget(): void {
    this.processor.reset(this.placeSeconds, this.values.now);
    this.processor.takeGuardGain();
    this.wetPath?.forget();
    for (const strand of this.strands.values()) strand.forget();
    this.dryCompensator?.reset(0);
    this.asleep = true;
    this.spill = 1;
    this.dryPeak = 0;
    this.wetPeak = 0;
    this.locate();
  }

  /**
   * Position in seconds. For oscillators synced to notes: the time at constant tempo and metre after which they would
   * have the same phase.
   */
  private get placeSeconds(): number {
    const { constantMetreSeconds, constantTempoSeconds, seconds } = this.context;
    return this.turnsBy === 'bar' ? constantMetreSeconds : this.turnsBy === 'beat' ? constantTempoSeconds : seconds;
  }

  /** Processes `io` in place. @param inputSilent true when every sample of `io` is zero */
  process(io: StereoBlock, inputSilent: boolean): void {
    const seconds = this.placeSeconds;
    this.values.step();
    this.switched.step();
    if (this.on) this.spill = 1;
    else {
      this.spill *= this.spillShare;
      for (let i = 0; i < this.holds.length; i += 1) this.values.now[this.holds[i]!] = 0;
    }
    const fed = !inputSilent && (this.on || this.feed > 0);
    if (this.asleep) {
      if (!fed && !(this.keepsHistory && this.on && this.processor.idle!(this.values.now))) {
        this.passDry(io, inputSilent);
        return;
      }
      this.clickFreeSwitch.jump(this.values.now);
      if (!this.keepsHistory) this.processor.locate(seconds, this.values.now);
      this.asleep = false;
    }
    const { wet } = this.scratch;
    const ringing = fed || !this.processor.silent;
    if (this.running.length > 0) this.alignStrands();
    if (this.iSwitch >= 0) this.processor.setSwitchOffset!(this.values.offsetOf(this.iSwitch));
    this.processor.process(this.applyFeed(io), wet, this.clickFreeSwitch.step(this.values));
    this.clickFreeSwitch.apply(wet);
    if (!this.context.mixer.finite(wet)) {
      this.trips += 1;
      this.processor.reset(seconds, this.values.now);
      wet.left.fill(0);
      wet.right.fill(0);
    }
    if (this.wetPath) this.processWetPath(this.wetPath, wet, !ringing);
    this.delayDry(io, !inputSilent);
    this.blend(io, true);
    if (!fed && this.processor.silent && (this.wetPath?.silent ?? true)) this.asleep = true;
  }

  /** The input of the wet path has the latency of the processor. */
  private processWetPath(path: InnerChain<RunningSlot>, wet: StereoBlock, silent: boolean): void {
    const { time } = this.context;
    const { latency } = time;
    time.latency += this.latency - path.latency;
    path.process(wet, silent);
    time.latency = latency;
  }

  /** A step in which only the dry sound passes. */
  private passDry(io: StereoBlock, inputSilent: boolean): void {
    this.dryPeak = 0;
    this.wetPeak = 0;
    this.delayDry(io, !inputSilent);
    if (!inputSilent || this.dryCompensator?.silent === false) this.blend(io, false);
    else this.updateGains(this.share);
  }

  private delayDry(io: StereoBlock, sounding: boolean): void {
    this.dryCompensator?.process(io, io, this.latency, sounding);
  }

  private applyFeed(io: StereoBlock): StereoBlock {
    const goal = this.on ? 1 : 0;
    if (this.feed === goal && goal === 1) return io;
    const { faded } = this.scratch;
    const next = smoothToward(this.feed, goal, this.share, 1e-6);
    const step = (next - this.feed) / STEP_FRAMES;
    let feed = this.feed;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      feed += step;
      faded.left[i] = io.left[i]! * feed;
      faded.right[i] = io.right[i]! * feed;
    }
    this.feed = next;
    return faded;
  }

  /** Smooths the dry and wet gains towards what switch, balance and audition mode ask for. */
  private updateGains(share: number): void {
    const now = this.values.now;
    let dry = now[this.iDry]!;
    let wet = now[this.iWet]!;
    const balance = now[this.iBalance]!;
    const mix = now[this.iMix]!;
    if (balance < EQUAL_POWER + 0.5) {
      dry = this.dryOf.at(mix);
      wet = this.wetOf.at(mix);
    } else if (balance > LINEAR_MIX - 0.5) {
      dry = 1 - mix;
      wet = mix;
    }
    if (this.mayBeAlone && this.processor.suppressesDry === true) {
      dry = 0;
      wet = 1;
    }
    dry *= now[this.iTrim]!;
    wet *= now[this.iTrim]!;
    if (this.hear === 'dry') {
      dry = 1;
      wet = 0;
    } else if (!this.on) {
      dry = 1;
      wet *= this.spill;
    } else if (this.hear === 'wet') dry = 0;
    else if (this.hear === 'difference') dry -= 1;
    this.dryNow = smoothToward(this.dryNow, dry, share, 1e-6);
    this.wetNow = smoothToward(this.wetNow, wet, share, 1e-6);
  }

  private blend(io: StereoBlock, withWet: boolean): void {
    const fromDry = this.dryNow;
    const fromWet = this.wetNow;
    this.updateGains(this.share);
    const { mixer } = this.context;
    mixer.gains(fromDry, this.dryNow, fromWet, this.wetNow);
    mixer.blend(io, withWet ? this.scratch.wet : mixer.nothing);
    this.dryPeak = mixer.peak;
    this.wetPeak = mixer.otherPeak;
  }
}
