import type { SoundData } from '../dsp/soundData';
import { clearBlock, copyBlock, STEP_FRAMES, makeStereoBlock, type StereoBlock } from '../dsp/blocks';
import { StereoImage } from '../analysis/stereoImage';
import { heldNumberAt, jumpsAt, positionAt, segmentAt } from '../automation/evaluate';
import { channelParams, MACRO_LEVEL } from '../piece/piece';
import { LatencyCompensator } from '../effects/latencyCompensator';
import { oppositeGain } from '../effects/common';
import { MemoizedUnary } from '../dsp/memoizedUnary';
import { RunningSend } from './send';
import { onePoleCoefficient, partialCoefficient, smoothToward } from '../dsp/onePole';
import { addClip } from './clipReader';
import type { PlanChannel, PlanTarget } from './plan';
import type { TempoClock } from './tempoClock';
import type { EngineContext } from './engineContext';
import { RunningChain } from './chain';
import { ParameterSmoother } from './parameterSmoother';

const GAIN = 0;
const PAN = 1;
const MUTE = 2;
const MUTE_SECONDS = 0.008;
/** A clip that playing starts or stops within fades over one step. */
const CATCH_FRAMES = STEP_FRAMES;
const PARAMS = Object.values(channelParams);
const OWN_VALUES = PARAMS.length;

/** Called with the signal of a channel once a step. */
export interface StepListener {
  /** @param before input of the effects  @param after their output */
  heard(before: StereoBlock, after: StereoBlock): void;
}

/** A running track, return or main output. */
export class RunningChannel {
  readonly bus: StereoBlock;
  readonly values: ParameterSmoother;
  readonly chain: RunningChain;
  /** Its sends, and removed ones that still fade out. */
  sends: RunningSend[] = [];
  /** Gains with which the main output takes the bus at the beginning and the end of the step. */
  directFrom = 1;
  directTo = 1;
  /** Peaks of the last step after level and pan: of the whole, and of its wet part. */
  peakLeft = 0;
  peakRight = 0;
  wetPeak = 0;
  dryPeak = 0;
  /** Macros, on the main output; a smoother of one value each. */
  macros: ParameterSmoother[] = [];
  readonly image: StereoImage;
  /** Output of its effects, pre-fader, for effects elsewhere that use it as a sidechain. */
  readonly overheard = makeStereoBlock();
  isOverheard = false;
  /** Listener of this channel. */
  listener: StepListener | null = null;
  private macroRows = new Map<string, ParameterSmoother>();
  /** Latency of its input, in samples. */
  inputLatency = 0;
  /** Latency of the output of its effects, in samples. */
  outputLatency = 0;
  /** Delays the post-fader signal by the delay common to main output and post-fader sends. */
  private sharedCompensator: LatencyCompensator | null = null;
  /** That delay in samples. */
  private sharedDelay = 0;
  /** Delays the post-fader signal by what the main output needs beyond that. */
  private mainCompensator: LatencyCompensator | null = null;
  /** The signal delayed for the main output; null while nothing has latency. */
  private delayed: StereoBlock | null = null;
  private readonly entered = makeStereoBlock();
  private started = false;
  private cursors = new Int32Array(0);
  /** The smoother that each lane of the plan controls. */
  private laneRows: readonly ParameterSmoother[] = [];
  private lanePlaces = new Int32Array(0);
  /** A lane has jumped in the present step, after its first sample. */
  private lanesJumped = false;
  private open = 1;
  private readonly leftOf = new MemoizedUnary(oppositeGain);
  private readonly rightOf = new MemoizedUnary(oppositeGain);
  private gainLeft = 1;
  private gainRight = 1;
  private busSilent = true;
  private readonly share: number;

  constructor(
    public plan: PlanChannel,
    private readonly context: EngineContext,
  ) {
    const { sampleRate } = context;
    this.bus = context.mixer.allocate();
    this.values = new ParameterSmoother(PARAMS, plan.values, sampleRate);
    this.chain = new RunningChain(context);
    this.image = new StereoImage(STEP_FRAMES, sampleRate);
    this.share = onePoleCoefficient(MUTE_SECONDS, STEP_FRAMES, sampleRate);
    this.adopt(plan);
    this.open = this.isOpen;
    this.directFrom = this.directTo = plan.direct ? 1 : 0;
    this.aimGains();
  }

  /** Sets a changed plan; effects that stay keep their state. */
  adopt(plan: PlanChannel): void {
    this.plan = plan;
    this.values.rebase(plan.values);
    this.values.clearLanes();
    this.values.clearLinks();
    this.adoptSends();
    this.adoptMacros();
    this.chain.adopt(plan.slots, this.started);
    this.started = true;
    this.cursors = new Int32Array(plan.lanes.length).fill(-1);
    this.lanesJumped = false;
    this.laneRows = plan.lanes.map((lane) => this.rowFor(lane));
    this.lanePlaces = Int32Array.from(plan.lanes, (lane) => this.placeIn(lane));
  }

  private adoptSends(): void {
    const before = this.sends;
    const now = this.plan.sends.map((send) => {
      const kept = before.find((running) => running.to === send.to);
      kept?.adopt(send);
      return kept ?? new RunningSend(send, this.context, this.share);
    });
    const leaving = before.filter((running) => !now.includes(running) && running.fading);
    for (const running of leaving) running.leave();
    for (const running of before) if (!now.includes(running) && !leaving.includes(running)) running.release();
    this.sends = [...now, ...leaving];
  }

  private adoptMacros(): void {
    const before = this.macroRows;
    this.macroRows = new Map(
      this.plan.macros.map(({ id, level }) => [
        id,
        before.get(id) ?? new ParameterSmoother([MACRO_LEVEL], Float64Array.of(level), this.context.sampleRate),
      ]),
    );
    this.macros = [...this.macroRows.values()];
    this.macros.forEach((row, i) => {
      row.rebase(Float64Array.of(this.plan.macros[i]!.level));
      row.clearLanes();
    });
  }

  /** The smoother of a value of the channel: level and pan, then one for each send, or for each macro. */
  rowOf(value: number): ParameterSmoother | undefined {
    return value < OWN_VALUES
      ? this.values
      : (this.sends[value - OWN_VALUES]?.values ?? this.macros[value - OWN_VALUES]);
  }

  indexIn(value: number): number {
    return value < OWN_VALUES ? value : 0;
  }

  locate(pulse: TempoClock, turns: Float64Array): void {
    this.followLanes(pulse, true);
    this.followLinks(turns, pulse.sample);
    this.values.jump();
    for (const send of this.sends) send.jump();
    for (const macro of this.macros) macro.jump();
    if (this.chain.silent) this.open = this.isOpen;
    this.chain.locate();
    this.aimGains();
  }

  /** Applies links. @param turns output of each modulator of the plan */
  followLinks(turns: Float64Array, place: number): void {
    const { links } = this.plan;
    if (links.length === 0) return;
    for (let i = 0; i < links.length; i += 1) this.rowFor(links[i]!).clearLinkOffsets();
    for (let i = 0; i < links.length; i += 1) {
      const link = links[i]!;
      if (rests(link.rests, place)) this.rowFor(link).addLinkOffset(this.placeIn(link), 0, link.transfer);
      else this.rowFor(link).addLinkOffset(this.placeIn(link), turns[link.modulator]!, link.transfer);
    }
  }

  private rowFor({ slot, value }: PlanTarget): ParameterSmoother {
    if (slot >= 0) return this.chain.every[slot]!.rowOf(value);
    return this.rowOf(value)!;
  }

  private placeIn({ slot, value }: PlanTarget): number {
    return slot >= 0 ? this.chain.every[slot]!.indexIn(value) : this.indexIn(value);
  }

  /**
   * Reads every lane at the end of the step, and lets note values follow a tempo that moves. A jump at the end of a step
   * is one at the first sample of the next.
   * @param located true when the position was set to this sample instead of reached: a jump at it is included
   */
  followLanes(pulse: TempoClock, located = false): void {
    const { lanes } = this.plan;
    const { sample } = pulse;
    if (pulse.isVarying) for (let i = 0; i < this.chain.every.length; i += 1) this.chain.every[i]!.followTempo(pulse);
    for (let i = 0; i < lanes.length; i += 1) {
      const lane = lanes[i]!;
      const before = this.cursors[i]!;
      let segment = segmentAt(lane, sample, before);
      while (!located && jumpsAt(lane, segment) && (sample - lane.times[segment]!) * pulse.tempoRatio < 0.5)
        segment -= 1;
      this.cursors[i] = segment;
      const held = heldNumberAt(lane, segment);
      if (Number.isNaN(held))
        this.laneRows[i]!.fromLanePosition(this.lanePlaces[i]!, positionAt(lane, sample, segment));
      else this.laneRows[i]!.fromLane(this.lanePlaces[i]!, held);
      const offset =
        segment !== before && jumpsAt(lane, segment) ? offsetOf(lane.times[segment], sample, pulse.tempoRatio) : 0;
      if (offset === 0) continue;
      this.laneRows[i]!.setLaneOffset(this.lanePlaces[i]!, offset);
      this.lanesJumped = true;
    }
  }

  /** Empties the bus at the beginning of a step, and clears the offsets of lanes that jumped in the last step. */
  clear(): void {
    clearBlock(this.bus.left);
    clearBlock(this.bus.right);
    this.busSilent = true;
    if (!this.lanesJumped) return;
    for (let i = 0; i < this.laneRows.length; i += 1) this.laneRows[i]!.clearOffset(this.lanePlaces[i]!);
    this.lanesJumped = false;
  }

  /** Adds the clips on [place, place + n) to the bus from index `from` on. */
  readClips(
    sounds: ReadonlyMap<string, SoundData>,
    place: number,
    n: number,
    from: number,
    startedAt: number,
    cutAt: number,
  ): void {
    const { clips } = this.plan;
    for (let i = 0; i < clips.length; i += 1) {
      const clip = clips[i]!;
      if (clip.start >= place + n || clip.start + clip.length <= place) continue;
      const sound = sounds.get(clip.sound);
      if (sound && addClip(clip, sound, place, n, this.bus, from, startedAt, cutAt, CATCH_FRAMES))
        this.busSilent = false;
    }
  }

  /** Fades the clips out over the step; for stopping. */
  fadeOut(): void {
    const { left, right } = this.bus;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const gain = 1 - (i + 1) / STEP_FRAMES;
      left[i] = left[i]! * gain;
      right[i] = right[i]! * gain;
    }
  }

  /** Adds the signal of another channel, its gain ramping linearly from a sample of the step on. */
  receive(block: StereoBlock, from = 1, to = 1, offset = 0): void {
    if (from === 0 && to === 0) return;
    const { mixer } = this.context;
    mixer.gains(from, to, 0, 0);
    if (offset === 0) mixer.add(this.bus, block);
    else mixer.addWithDelayedRamp(this.bus, block, offset);
    this.busSilent = false;
  }

  /** Computes output latency from input latency, once that is known. */
  updateLatency(): void {
    this.outputLatency = this.inputLatency + this.chain.latency;
  }

  /** Computes the delay common to main output and post-fader sends, once all input latencies are known. */
  updateSharedDelay(main: RunningChannel): void {
    let target = main.inputLatency;
    for (let i = 0; i < this.sends.length; i += 1) {
      const send = this.sends[i]!;
      if (!send.pre && send.target && send.target.inputLatency < target) target = send.target.inputLatency;
    }
    this.sharedDelay = target > this.outputLatency ? target - this.outputLatency : 0;
  }

  /** Latency of the signal after level and shared delay, in samples. */
  private get postFaderLatency(): number {
    return this.sharedCompensator === null
      ? this.outputLatency
      : this.outputLatency + this.sharedCompensator.currentDelay;
  }

  /** True when none of its tails is audible any more. */
  get silent(): boolean {
    return (
      this.chain.silent &&
      (this.sharedCompensator?.silent ?? true) &&
      (this.mainCompensator?.silent ?? true) &&
      this.sends.every((send) => !send.ringing)
    );
  }

  /** Clears all sound and returns to the initial state. */
  forget(): void {
    this.clear();
    clearBlock(this.overheard.left);
    clearBlock(this.overheard.right);
    this.chain.forget();
    this.sharedCompensator?.reset(0);
    this.mainCompensator?.reset(0);
    for (const send of this.sends) send.forget();
    this.open = this.isOpen;
    this.directFrom = this.directTo = this.plan.direct ? 1 : 0;
    this.aimGains();
    this.image.clear();
    this.peakLeft = this.peakRight = this.wetPeak = this.dryPeak = 0;
  }

  raiseInputLatency(late: number): void {
    if (late > this.inputLatency) this.inputLatency = late;
  }

  /** Jumps to all delays; for the start of playing. @param main the main output */
  resetCompensation(main: RunningChannel): void {
    if (this.sharedCompensator?.silent) this.sharedCompensator.reset(this.sharedDelay);
    if (this.mainCompensator?.silent) this.mainCompensator.reset(main.inputLatency - this.postFaderLatency);
    for (const send of this.sends) send.resetCompensation(send.pre ? this.outputLatency : this.postFaderLatency);
  }

  /** Allocates the rings that delay this channel for others that are later; needed once some channel is late. */
  prepareCompensation(): void {
    this.sharedCompensator ??= new LatencyCompensator(this.context.sampleRate, this.context.mixer);
    this.mainCompensator ??= new LatencyCompensator(this.context.sampleRate);
    this.delayed ??= this.context.mixer.allocate();
    for (const send of this.sends) send.prepareCompensation();
  }

  /** The channel was removed from the plan: frees its blocks and its ring. */
  leave(): void {
    this.chain.release();
    this.context.mixer.free(this.bus);
    this.sharedCompensator?.release();
    if (this.delayed) this.context.mixer.free(this.delayed);
    for (const send of this.sends) send.release();
  }

  /** Adds its signal to the main output, in time with the other channels'. */
  sendToMain(main: RunningChannel, sounding: boolean): void {
    if (!this.mainCompensator) {
      if (sounding) main.receive(this.bus, this.directFrom, this.directTo);
      return;
    }
    if (!sounding && this.mainCompensator.silent) return;
    main.receive(
      this.mainCompensator.process(this.bus, this.delayed!, main.inputLatency - this.postFaderLatency, sounding),
      this.directFrom,
      this.directTo,
    );
  }

  /** Chain, level and pan, in place on the bus. @returns true when the bus holds sound */
  process(): boolean {
    this.values.step();
    for (let i = 0; i < this.macros.length; i += 1) this.macros[i]!.step();
    if (this.listener) {
      copyBlock(this.bus.left, this.entered.left);
      copyBlock(this.bus.right, this.entered.right);
    }
    this.context.time.latency = this.inputLatency;
    const silent = this.chain.process(this.bus, this.busSilent);
    this.listener?.heard(this.entered, this.bus);
    if (this.isOverheard) this.keepOverheard(silent);
    this.feedSends(true, !silent);
    this.level(silent);
    const sounding = this.applySharedDelay(!silent);
    this.feedSends(false, sounding);
    const loudest = this.gainLeft > this.gainRight ? this.gainLeft : this.gainRight;
    this.wetPeak = this.chain.wetPeak * loudest;
    this.dryPeak =
      this.plan.slots.length > 0
        ? this.chain.dryPeak * loudest
        : this.peakLeft > this.peakRight
          ? this.peakLeft
          : this.peakRight;
    return sounding;
  }

  /** Delays the bus in place. @returns true when it holds sound afterwards */
  private applySharedDelay(sounding: boolean): boolean {
    const { sharedCompensator, bus, sharedDelay } = this;
    if (sharedCompensator === null || (!sounding && sharedCompensator.silent)) return sounding;
    sharedCompensator.process(bus, bus, sharedDelay, sounding);
    return sounding || !sharedCompensator.silent;
  }

  private keepOverheard(silent: boolean): void {
    const { left, right } = this.overheard;
    if (silent) {
      clearBlock(left);
      clearBlock(right);
      return;
    }
    copyBlock(this.bus.left, left);
    copyBlock(this.bus.right, right);
  }

  /** Sends that take before the level, or those that take after it; `open` shuts both when the channel is muted. */
  private feedSends(pre: boolean, sounding: boolean): void {
    for (let i = 0; i < this.sends.length; i += 1) {
      const send = this.sends[i]!;
      if (send.pre !== pre || !send.target || !(sounding || send.ringing)) continue;
      send.addToReturn(this.bus, pre ? this.open : 1, pre ? this.outputLatency : this.postFaderLatency, sounding);
    }
  }

  private get isOpen(): number {
    return this.plan.audible && this.values.now[MUTE]! < 0.5 ? 1 : 0;
  }

  private aimGains(): void {
    const gain = this.values.now[GAIN]! * this.open;
    const pan = this.values.now[PAN]!;
    this.gainLeft = gain * this.leftOf.at(pan);
    this.gainRight = gain * this.rightOf.at(-pan);
  }

  /**
   * The chain's output is taken in single precision, as a print keeps it: a print laid back then equals the live effect
   * to the bit.
   */
  private level(silent: boolean): void {
    const fromLeft = this.gainLeft;
    const fromRight = this.gainRight;
    const open = this.isOpen;
    const { values } = this;
    const offset = Math.max(values.offsetOf(GAIN), values.offsetOf(PAN), values.offsetOf(MUTE));
    this.open += (open - this.open) * partialCoefficient(this.share, 1 - offset / STEP_FRAMES);
    if (Math.abs(open - this.open) < 1e-6) this.open = open;
    this.directFrom = this.directTo;
    this.directTo = smoothToward(this.directTo, this.plan.direct ? 1 : 0, this.share, 1e-6);
    this.aimGains();
    this.peakLeft = 0;
    this.peakRight = 0;
    if (silent) {
      this.image.addSums(0, 0, 0);
      return;
    }
    const { mixer } = this.context;
    mixer.gains(fromLeft, this.gainLeft, fromRight, this.gainRight);
    if (offset === 0) mixer.level(this.bus);
    else mixer.levelWithDelayedRamp(this.bus, offset);
    this.peakLeft = mixer.peak;
    this.peakRight = mixer.otherPeak;
    this.image.addSums(mixer.leftPower, mixer.rightPower, mixer.commonPower);
  }
}

function rests(stretches: Float64Array, place: number): boolean {
  for (let i = 0; i < stretches.length; i += 2) if (place >= stretches[i]! && place < stretches[i + 1]!) return true;
  return false;
}

/**
 * Samples into a step at which a point is; 0 where it is before.
 * @param place of the point, by the piece's own tempo  @param end of the step, likewise  @param ratio of the tempo here
 */
function offsetOf(place: number | undefined, end: number, ratio: number): number {
  const offset = place === undefined ? 0 : STEP_FRAMES - Math.round((end - place) * ratio);
  return offset > 0 ? offset : 0;
}
