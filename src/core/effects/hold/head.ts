import type { History } from './history';

/** A read head over the history with varying speed, which fades out as it slows down. */
export class Head {
  position = 0;

  /** @param faintSpeed below it the level sinks with the speed, to nothing where the head does not move */
  constructor(private readonly faintSpeed: number) {}

  /**
   * Reads [from, to) at a speed that is ramped linearly to `end`. A position that has been overwritten is replaced by
   * the oldest that is left.
   */
  read(history: History, speed: number, end: number, from: number, to: number): void {
    const n = to - from;
    const growth = (end - speed) / n;
    if (this.position < history.oldest) this.position = history.oldest;
    history.read(this.position, speed, growth, from, to);
    this.position += n * speed + (growth * n * (n - 1)) / 2;
  }

  levelAt(speed: number): number {
    const size = speed < 0 ? -speed : speed;
    return size < this.faintSpeed ? size / this.faintSpeed : 1;
  }
}
