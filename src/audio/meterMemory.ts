/** Shared memory the audio thread writes and the page reads, without a message: playhead, meters, warnings. */
const HEADER = 12;
const PER_CHANNEL = 6;
export const MAX_CHANNELS = 256;
const PER_SLOT = 4;
/** Effects past this many are heard but not metered. */
export const MAX_SLOTS = 2048;
const SLOTS = HEADER + PER_CHANNEL * MAX_CHANNELS;
export const MAX_TURNS = 256;
const TURNS = SLOTS + PER_SLOT * MAX_SLOTS;
const RUN_STEPS = TURNS + MAX_TURNS;

const PLAYING = 0;
const POSITION = 1;
const LOAD = 2;
const LATE = 3;
const LIMITER = 4;
const GUARD = 5;
const CAUGHT = 6;
const MATCH_DB = 7;
const BLOCKS = 8;
const ORIGIN = 9;
const TURNED = 10;

export const makeMeterMemory = (): SharedArrayBuffer => new SharedArrayBuffer((RUN_STEPS + MAX_TURNS) * 8);

export interface EngineState {
  playing: boolean;
  /** Sample of the piece that is being computed now. */
  position: number;
  /**
   * When, in seconds on the audio clock, the first sample of the piece would have been due: one figure, so that the
   * page never reads half of a pair.
   */
  origin: number;
  /** It is at its position by a jump of the loop. */
  turned: boolean;
  /** Load: share of the available time that the audio thread needs. */
  load: number;
  /** Times that the audio thread fell behind. */
  late: number;
  limiterGain: number;
  guardGain: number;
  caught: number;
  matchDb: number;
}

/** The audio thread's side. */
export class MeterWriter {
  private readonly cells: Float64Array;

  constructor(memory: SharedArrayBuffer) {
    this.cells = new Float64Array(memory);
  }

  /** @param origin as in EngineState */
  state(
    playing: boolean,
    position: number,
    origin: number,
    turned: boolean,
    limiterGain: number,
    guardGain: number,
    caught: number,
    matchDb: number,
  ): void {
    const { cells } = this;
    cells[PLAYING] = playing ? 1 : 0;
    cells[POSITION] = position;
    cells[ORIGIN] = origin;
    cells[TURNED] = turned ? 1 : 0;
    cells[LIMITER] = limiterGain;
    cells[GUARD] = guardGain;
    cells[CAUGHT] = caught;
    cells[MATCH_DB] = matchDb;
    cells[BLOCKS] = cells[BLOCKS]! + 1;
  }

  work(load: number, late: number): void {
    this.cells[LOAD] = load;
    this.cells[LATE] = late;
  }

  /** Peaks of one channel; each falls by `fall` a block unless it rises. */
  channel(index: number, left: number, right: number, dry: number, wet: number, fall: number): void {
    const at = HEADER + index * PER_CHANNEL;
    this.rise(at, left, fall);
    this.rise(at + 1, right, fall);
    this.rise(at + 2, dry, fall);
    this.rise(at + 3, wet, fall);
  }

  /** Correlation of a channel (-1 to 1), and its loss in mono in dB. */
  image(index: number, correlation: number, monoDb: number): void {
    const at = HEADER + index * PER_CHANNEL;
    this.cells[at + 4] = correlation;
    this.cells[at + 5] = monoDb;
  }

  /**
   * Peaks of one effect, of its input and its wet output, and the activity shown in its picture.
   * @param lagSeconds how far back a hold reads
   */
  slot(index: number, dry: number, wet: number, activity: number, lagSeconds: number, fall: number): void {
    if (index >= MAX_SLOTS) return;
    this.cells[SLOTS + index * PER_SLOT + 2] = activity;
    this.cells[SLOTS + index * PER_SLOT + 3] = lagSeconds;
    this.rise(SLOTS + index * PER_SLOT, dry, fall);
    this.rise(SLOTS + index * PER_SLOT + 1, wet, fall);
  }

  /** The value of a modulator of the plan. */
  turn(index: number, value: number): void {
    if (index < MAX_TURNS) this.cells[TURNS + index] = value;
  }

  /** The step that a run of the plan is in, -1 for none. */
  runStep(index: number, step: number): void {
    if (index < MAX_TURNS) this.cells[RUN_STEPS + index] = step;
  }

  private rise(at: number, value: number, fall: number): void {
    const fallen = this.cells[at]! * fall;
    this.cells[at] = value > fallen ? value : fallen;
  }
}

/** The page's side. */
export class MeterReader {
  private readonly cells: Float64Array;
  readonly state: EngineState = {
    playing: false,
    position: 0,
    origin: 0,
    turned: false,
    load: 0,
    late: 0,
    limiterGain: 1,
    guardGain: 1,
    caught: 0,
    matchDb: 0,
  };

  constructor(memory: SharedArrayBuffer) {
    this.cells = new Float64Array(memory);
  }

  read(): EngineState {
    const { cells, state } = this;
    state.playing = cells[PLAYING] === 1;
    state.position = cells[POSITION]!;
    state.origin = cells[ORIGIN]!;
    state.turned = cells[TURNED] === 1;
    state.load = cells[LOAD]!;
    state.late = cells[LATE]!;
    state.limiterGain = cells[LIMITER] || 1;
    state.guardGain = cells[GUARD] || 1;
    state.caught = cells[CAUGHT]!;
    state.matchDb = cells[MATCH_DB]!;
    return state;
  }

  get blocks(): number {
    return this.cells[BLOCKS]!;
  }

  correlation(channel: number): number {
    return this.cells[HEADER + channel * PER_CHANNEL + 4] ?? 1;
  }

  monoDb(channel: number): number {
    return this.cells[HEADER + channel * PER_CHANNEL + 5] ?? 0;
  }

  /** Peak at an effect, counted through the whole piece. @param which 0 input, 1 wet output */
  slotPeak(slot: number, which: 0 | 1): number {
    return slot < 0 || slot >= MAX_SLOTS ? 0 : this.cells[SLOTS + slot * PER_SLOT + which]!;
  }

  /** Of a hold the samples since it began, 0 while it is silent; of a braid the strand that is let in, -1 for all. */
  slotActivity(slot: number): number {
    return slot < 0 || slot >= MAX_SLOTS ? 0 : this.cells[SLOTS + slot * PER_SLOT + 2]!;
  }

  /** Lag of a hold's read position, in seconds; 0 where it uses the input, or nothing is held. */
  slotLag(slot: number): number {
    return slot < 0 || slot >= MAX_SLOTS ? 0 : this.cells[SLOTS + slot * PER_SLOT + 3]!;
  }

  /** The present value of a modulator, by its index in the piece. */
  turn(modulator: number): number {
    return modulator < 0 || modulator >= MAX_TURNS ? 0 : this.cells[TURNS + modulator]!;
  }

  /** The step that a run is in, by its place in the piece; -1 while its hold is silent. */
  runStep(modulator: number): number {
    return modulator < 0 || modulator >= MAX_TURNS ? -1 : this.cells[RUN_STEPS + modulator]!;
  }

  /** 0 left, 1 right, 2 dry, 3 wet. */
  peak(channel: number, which: 0 | 1 | 2 | 3): number {
    return this.cells[HEADER + channel * PER_CHANNEL + which] ?? 0;
  }
}
