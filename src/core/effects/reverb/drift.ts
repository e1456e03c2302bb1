import { sinTurns } from '../../dsp/approx';
import { NETWORK_FRAMES, NETWORK_LINES, PAIRS, type NetworkMemory } from '../../dsp/networkMemory';

/** Turns a second of the slowest pair, of which the fastest takes three times as many: of what both sides hear, and of the lines themselves. */
const HEARD_HZ = 2.5;
const TURNED_HZ = 0.8;
const GAINS = 2 * NETWORK_LINES;
/** Mean length of a line, in seconds, at which they are turned as fast as that; shorter ones come round more often, and are turned slower. */
const USUAL_SECONDS = 0.05;
/** Where the pairs begin, each by so much of a turn behind the one before. */
const APART = 0.381966;

/**
 * Turns pairs of a network's lines slowly, so that no mode rings on by itself, and turns which of them both sides hear. A turn is
 * orthogonal, so nothing decays otherwise than it would, and no line changes its length.
 * Source: S. J. Schlecht and E. A. P. Habets, "Time-varying feedback matrices in feedback delay networks and their application in
 * artificial reverberation" (2015).
 */
export class Drift {
  private readonly heard = new Float64Array(PAIRS);
  private readonly turned = new Float64Array(PAIRS);
  /** What both sides hear of each line when nothing has turned, and now; then cosines and sines of the pairs. */
  private readonly plain = new Float64Array(GAINS);
  private readonly gains = new Float64Array(GAINS);
  private readonly angles = new Float64Array(2 * PAIRS);
  private speed = 0;
  private settled = false;

  /** @param memory of the network; its out gains as they are when nothing has turned */
  constructor(
    private readonly memory: NetworkMemory,
    private readonly sampleRate: number,
  ) {
    memory.turns.fill(1, 0, PAIRS);
    for (let i = 0; i < GAINS; i += 1) this.plain[i] = memory.outGains[i]!;
  }

  /** Takes the place of everything at a time. */
  locate(seconds: number): void {
    for (let pair = 0; pair < PAIRS; pair += 1) {
      this.heard[pair] = wrapped(pair * APART + seconds * rateOf(HEARD_HZ, pair));
      this.turned[pair] = wrapped(pair * APART + seconds * this.speed * rateOf(TURNED_HZ, pair));
    }
    this.settled = false;
  }

  /** @param meanSeconds mean length of a space's lines  @param turns false leaves them alone, for a space that keeps them apart */
  enter(meanSeconds: number, turns: boolean): void {
    this.speed = turns ? Math.sqrt(meanSeconds / USUAL_SECONDS) : 0;
    this.settled = false;
  }

  /** Leads everything to where it stands after a step. @param share 0 stands still, 1 goes on as fast as it does */
  move(share: number): void {
    if (!this.settled) {
      this.reckon();
      this.arrive();
      this.settled = true;
    }
    const step = (share * NETWORK_FRAMES) / this.sampleRate;
    for (let pair = 0; pair < PAIRS; pair += 1) {
      this.heard[pair] = wrapped(this.heard[pair]! + step * rateOf(HEARD_HZ, pair));
      this.turned[pair] = wrapped(this.turned[pair]! + step * this.speed * rateOf(TURNED_HZ, pair));
    }
    this.reckon();
    const { outGains, outMoves, turns } = this.memory;
    for (let i = 0; i < GAINS; i += 1) outMoves[i] = (this.gains[i]! - outGains[i]!) / NETWORK_FRAMES;
    for (let i = 0; i < 2 * PAIRS; i += 1) turns[2 * PAIRS + i] = (this.angles[i]! - turns[i]!) / NETWORK_FRAMES;
  }

  /** After the step. */
  arrive(): void {
    const { outGains, turns } = this.memory;
    for (let i = 0; i < GAINS; i += 1) outGains[i] = this.gains[i]!;
    for (let i = 0; i < 2 * PAIRS; i += 1) turns[i] = this.angles[i]!;
  }

  /** Works out gains and angles of where the pairs stand. */
  private reckon(): void {
    const { plain, gains, angles } = this;
    for (let pair = 0; pair < PAIRS; pair += 1) {
      angles[pair] = sinTurns(this.turned[pair]! + 0.25);
      angles[PAIRS + pair] = sinTurns(this.turned[pair]!);
      const cosine = sinTurns(this.heard[pair]! + 0.25);
      const sine = sinTurns(this.heard[pair]!);
      for (let at = 2 * pair; at < GAINS; at += NETWORK_LINES) {
        gains[at] = cosine * plain[at]! - sine * plain[at + 1]!;
        gains[at + 1] = sine * plain[at]! + cosine * plain[at + 1]!;
      }
    }
  }
}

/** The pairs' rates lie evenly by ratio, every second one backwards. */
const SHARES = Float64Array.from({ length: PAIRS }, (_, pair) => (pair & 1 ? -1 : 1) * Math.pow(3, pair / (PAIRS - 1)));
const rateOf = (slowest: number, pair: number): number => slowest * SHARES[pair]!;
const wrapped = (turns: number): number => turns - Math.floor(turns);
