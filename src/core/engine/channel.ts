import { STEP_FRAMES, stereoRun, type StereoRun } from '../effects/define';
import { positionAt, segmentAt } from '../moves/evaluate';
import { channelParams } from '../piece/piece';
import { followShare } from '../dsp/onePole';
import { addClip, type SoundData } from './clipReader';
import type { LoudnessMatcher } from './matcher';
import type { PlanChannel } from './plan';
import { RunningSlot } from './slot';
import { ValueRow } from './valueRow';

const GAIN = 0;
const PAN = 1;
const MUTE_SECONDS = 0.008;
/** A clip caught in its middle by the start of playing, or cut by its stop, fades over one step. */
const CATCH_FRAMES = STEP_FRAMES;
const PARAMS = Object.values(channelParams);

/** A track or the main output while it runs. */
export class RunningChannel {
  readonly bus = stereoRun();
  readonly values: ValueRow;
  slots: RunningSlot[] = [];
  /** Peaks of the last step after level and pan: all of it, and the part that is treated. */
  peakLeft = 0;
  peakRight = 0;
  wetPeak = 0;
  dryPeak = 0;
  private cursors = new Int32Array(0);
  private open = 1;
  private gainLeft = 1;
  private gainRight = 1;
  private busSilent = true;
  private readonly share: number;

  constructor(public plan: PlanChannel, private readonly sampleRate: number, seconds: number) {
    this.values = new ValueRow(PARAMS, plan.values, sampleRate);
    this.share = followShare(MUTE_SECONDS, STEP_FRAMES, sampleRate);
    this.adopt(plan, seconds);
    this.open = plan.audible ? 1 : 0;
    this.aimGains();
  }

  /** Takes a changed plan; effects that stay keep their sound. */
  adopt(plan: PlanChannel, seconds: number): void {
    this.plan = plan;
    this.values.rebase(plan.values);
    this.values.clearLanes();
    const before = this.slots;
    this.slots = plan.slots.map((slot) => {
      const kept = before.find((running) => running.plan.id === slot.id && running.plan.effect === slot.effect);
      if (!kept) return new RunningSlot(slot, this.sampleRate, seconds);
      kept.plan = slot;
      kept.values.rebase(slot.values);
      kept.values.clearLanes();
      return kept;
    });
    this.cursors = new Int32Array(plan.lanes.length).fill(-1);
  }

  locate(seconds: number, place: number): void {
    this.followLanes(place);
    this.values.jump();
    for (const slot of this.slots) slot.locate(seconds);
    this.aimGains();
  }

  /** Reads every lane at `place`. */
  followLanes(place: number): void {
    const { lanes } = this.plan;
    for (let i = 0; i < lanes.length; i += 1) {
      const lane = lanes[i]!;
      const segment = segmentAt(lane, place, this.cursors[i]!);
      this.cursors[i] = segment;
      const row = lane.slot < 0 ? this.values : this.slots[lane.slot]!.values;
      row.fromLane(lane.value, positionAt(lane, place, segment));
    }
  }

  clear(): void {
    this.bus.left.fill(0);
    this.bus.right.fill(0);
    this.busSilent = true;
  }

  /** Adds what the clips play on [place, place + n) at index `from` of the bus. */
  readClips(sounds: ReadonlyMap<string, SoundData>, place: number, n: number, from: number, startedAt: number, cutAt: number): void {
    const { clips } = this.plan;
    for (let i = 0; i < clips.length; i += 1) {
      const clip = clips[i]!;
      if (clip.start >= place + n || clip.start + clip.length <= place) continue;
      const sound = sounds.get(clip.sound);
      if (sound && addClip(clip, sound, place, n, this.bus, from, startedAt, cutAt, CATCH_FRAMES)) this.busSilent = false;
    }
  }

  /** Fades what was read to nothing over the step; for the moment of stopping. */
  fadeOut(): void {
    const { left, right } = this.bus;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const gain = 1 - (i + 1) / STEP_FRAMES;
      left[i] = left[i]! * gain;
      right[i] = right[i]! * gain;
    }
  }

  receive(from: StereoRun): void {
    const { left, right } = this.bus;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      left[i] = left[i]! + from.left[i]!;
      right[i] = right[i]! + from.right[i]!;
    }
    this.busSilent = false;
  }

  /** Chain, level and pan, in place on the bus. @returns true when the bus holds sound */
  process(seconds: number, matcher: LoudnessMatcher, matched: RunningSlot | null): boolean {
    this.values.step();
    let silent = this.busSilent;
    let wetPeak = 0;
    this.dryPeak = 0;
    for (let i = 0; i < this.slots.length; i += 1) {
      const slot = this.slots[i]!;
      const judged = slot === matched;
      if (judged) matcher.listenBefore(this.bus);
      slot.process(this.bus, silent, seconds);
      if (judged) matcher.matchAfter(this.bus);
      if (!slot.silent) silent = false;
      if (slot.wetPeak > wetPeak) wetPeak = slot.wetPeak;
      if (i === 0) this.dryPeak = slot.dryPeak;
    }
    this.level(silent);
    const loudest = this.gainLeft > this.gainRight ? this.gainLeft : this.gainRight;
    this.wetPeak = wetPeak * loudest;
    this.dryPeak = this.slots.length > 0 ? this.dryPeak * loudest : this.peakLeft > this.peakRight ? this.peakLeft : this.peakRight;
    return !silent;
  }

  private aimGains(): void {
    const gain = this.values.now[GAIN]! * this.open;
    const pan = this.values.now[PAN]!;
    this.gainLeft = gain * (pan > 0 ? Math.cos((pan * Math.PI) / 2) : 1);
    this.gainRight = gain * (pan < 0 ? Math.cos((pan * Math.PI) / 2) : 1);
  }

  /** The chain's output is taken in single precision, as a print keeps it: a print laid back then equals the live effect to the bit. */
  private level(silent: boolean): void {
    const fromLeft = this.gainLeft;
    const fromRight = this.gainRight;
    const open = this.plan.audible ? 1 : 0;
    this.open += (open - this.open) * this.share;
    if (Math.abs(open - this.open) < 1e-6) this.open = open;
    this.aimGains();
    this.peakLeft = 0;
    this.peakRight = 0;
    if (silent) return;
    const stepLeft = (this.gainLeft - fromLeft) / STEP_FRAMES;
    const stepRight = (this.gainRight - fromRight) / STEP_FRAMES;
    const { left, right } = this.bus;
    let gainLeft = fromLeft;
    let gainRight = fromRight;
    let peakLeft = 0;
    let peakRight = 0;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      gainLeft += stepLeft;
      gainRight += stepRight;
      const l = Math.fround(left[i]!) * gainLeft;
      const r = Math.fround(right[i]!) * gainRight;
      left[i] = l;
      right[i] = r;
      if (l > peakLeft) peakLeft = l;
      else if (-l > peakLeft) peakLeft = -l;
      if (r > peakRight) peakRight = r;
      else if (-r > peakRight) peakRight = -r;
    }
    this.peakLeft = peakLeft;
    this.peakRight = peakRight;
  }
}
