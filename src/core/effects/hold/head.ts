import type { History } from './history';

/** A head that goes over the history at a speed that changes, and is heard the less the slower it moves. */
export class Head {
  position = 0;

  /** @param faintSpeed below it the level sinks with the speed, to nothing where the head does not move */
  constructor(private readonly faintSpeed: number) {}

  /**
   * Reads [from, to) at a speed that goes in a straight line to `end`, and goes on to where that leads. A position that has
   * been written over gives way to the oldest that is left.
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
