import { arrive } from '../../dsp/onePole';
import { FilterRow } from '../../dsp/filterRow';
import { copyRun } from '../../dsp/runs';
import type { EffectProcessor, StereoRun } from '../define';
import { SECOND_ORDER_Q } from '../filter/processor';
import { commonParams } from '../common';
import { Insert } from '../insert';
import { placesOf } from '../places';
import { SeenRow } from '../seenRow';
import { eqParams } from './params';

const AT = placesOf(eqParams);
const BANDS = 6;
const PLACES = Object.keys({ ...commonParams, ...eqParams }).length;
const SWITCH_SECONDS = 0.01;

/**
 * Six state-variable filters in a row on each side; cuts, shelves and bells differ in their mixing weights alone.
 * Source: Andrew Simper, "Solving the continuous SVF equations using trapezoidal integration" (2013).
 */
export class EqProcessor extends Insert implements EffectProcessor {
  private readonly row: FilterRow;
  private lowCut = 0;
  private highCut = 0;
  private readonly seen = new SeenRow(PLACES);

  /** @param withKernel false leaves all work to TypeScript, which tests compare */
  constructor(sampleRate: number, withKernel = true) {
    super(sampleRate, 0.5, SWITCH_SECONDS);
    this.row = new FilterRow(BANDS, withKernel);
  }

  reset(_seconds: number, values: Float64Array): void {
    this.row.clear();
    this.seen.forget();
    this.locate(0, values);
  }

  locate(_seconds: number, values: Float64Array): void {
    this.lowCut = values[AT.lowCutOn]!;
    this.highCut = values[AT.highCutOn]!;
    this.quiet.clear();
    this.seen.forget();
  }

  process(input: StereoRun, wet: StereoRun, values: Float64Array): void {
    this.quiet.listen(input);
    copyRun(input.left, wet.left);
    copyRun(input.right, wet.right);
    if (!this.stands(values)) this.aim(values);
    this.row.process(wet);
    this.quiet.hear(wet);
  }

  /** True while nothing has moved since the last step: then the row knows its goals. */
  private stands(values: Float64Array): boolean {
    const moved = this.seen.hasMoved(values);
    return !moved && this.lowCut === values[AT.lowCutOn] && this.highCut === values[AT.highCutOn];
  }

  private aim(values: Float64Array): void {
    this.lowCut = arrive(this.lowCut, values[AT.lowCutOn]!, this.share);
    this.highCut = arrive(this.highCut, values[AT.highCutOn]!, this.share);
    const k = 1 / SECOND_ORDER_Q;
    const { lowCut, highCut } = this;
    this.row.aim(0, this.tan(values[AT.lowCut]!), k, 1, -k * lowCut, -lowCut);
    this.row.aim(1, this.tan(values[AT.highCut]!), k, 1 - highCut, 0, highCut);
    this.lowShelf(values[AT.lowHz]!, values[AT.lowDb]!);
    this.bell(3, values[AT.bodyHz]!, values[AT.bodyDb]!, values[AT.bodyQ]!);
    this.bell(4, values[AT.edgeHz]!, values[AT.edgeDb]!, values[AT.edgeQ]!);
    this.highShelf(values[AT.highHz]!, values[AT.highDb]!);
  }

  private lowShelf(hz: number, db: number): void {
    const k = 1 / SECOND_ORDER_Q;
    const root = Math.pow(10, db / 40);
    this.row.aim(2, this.tan(hz) / Math.sqrt(root), k, 1, k * (root - 1), root * root - 1);
  }

  private highShelf(hz: number, db: number): void {
    const k = 1 / SECOND_ORDER_Q;
    const root = Math.pow(10, db / 40);
    this.row.aim(5, this.tan(hz) * Math.sqrt(root), k, root * root, k * (1 - root) * root, 1 - root * root);
  }

  private bell(index: number, hz: number, db: number, q: number): void {
    const root = Math.pow(10, db / 40);
    const k = 1 / (q * root);
    this.row.aim(index, this.tan(hz), k, 1, k * (root * root - 1), 0);
  }

  private tan(hz: number): number {
    const most = 0.49 * this.sampleRate;
    return Math.tan((Math.PI * (hz > most ? most : hz)) / this.sampleRate);
  }
}
