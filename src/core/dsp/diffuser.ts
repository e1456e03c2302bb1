/**
 * Four allpass sections in a row: smears a click into a wash without colouring it.
 * Source: M. R. Schroeder, "Natural Sounding Artificial Reverberation" (1962).
 */
const SECTION_SECONDS = [0.00477, 0.00359, 0.01273, 0.00931] as const;
const GAIN = 0.6;

export class Diffuser {
  private readonly rings: Float64Array[];
  private idle = true;
  private readonly places = new Int32Array(SECTION_SECONDS.length);

  constructor(sampleRate: number) {
    this.rings = SECTION_SECONDS.map((seconds) => new Float64Array(Math.round(seconds * sampleRate)));
  }

  clear(): void {
    for (const ring of this.rings) ring.fill(0);
    this.idle = true;
  }

  /** Nothing passes for now: what it holds is not heard again. */
  rest(): void {
    this.idle = true;
  }

  /**
   * Blends the smeared signal in, in place; a straight blend of two unit-gain paths never exceeds unity.
   * @param from @param to blend at the ends of the run, 0-1  @param difference 0-1, turns every other section round to part left from right
   */
  process(io: Float64Array, smeared: Float64Array, n: number, from: number, to: number, difference: number): void {
    if (this.idle) this.enter(io, smeared, n);
    else for (let i = 0; i < n; i += 1) smeared[i] = io[i]!;
    for (let section = 0; section < this.rings.length; section += 1) {
      const gain = section & 1 ? GAIN : GAIN * (1 - 2 * difference);
      this.section(section, smeared, n, gain);
    }
    const step = (to - from) / n;
    let blend = from;
    for (let i = 0; i < n; i += 1) {
      blend += step;
      io[i] = io[i]! + (smeared[i]! - io[i]!) * blend;
    }
  }

  /** Begins empty, and lets the sound in over the run: a step into the sections would come out of each as a click. */
  private enter(io: Float64Array, smeared: Float64Array, n: number): void {
    this.clear();
    this.idle = false;
    for (let i = 0; i < n; i += 1) {
      const t = (i + 1) / n;
      smeared[i] = io[i]! * t * t * (3 - 2 * t);
    }
  }

  /** In pieces that end where the ring does, so that the loop need not look for its end. */
  private section(index: number, io: Float64Array, n: number, gain: number): void {
    const ring = this.rings[index]!;
    const size = ring.length;
    let at = this.places[index]!;
    for (let from = 0; from < n; ) {
      const end = Math.min(n, from + size - at);
      for (let i = from, place = at; i < end; i += 1, place += 1) {
        const delayed = ring[place]!;
        const into = io[i]! + gain * delayed + 1e-15 - 1e-15;
        ring[place] = into;
        io[i] = delayed - gain * into;
      }
      at += end - from;
      if (at === size) at = 0;
      from = end;
    }
    this.places[index] = at;
  }
}
