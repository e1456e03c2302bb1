import { arrive } from '../../dsp/onePole';
import { FilterRow } from '../../dsp/filterRow';
import { MatchedFilter } from '../../dsp/matchedFilter';
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
 * Six state-variable filters in a row on each side, whose responses are those of analogue cuts, shelves and bells.
 */
export class EqProcessor extends Insert implements EffectProcessor {
  private readonly row: FilterRow;
  private readonly design = new MatchedFilter();
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
    const { design, lowCut, highCut } = this;
    // A cut that is switched comes in by its share of the way from letting all through.
    design.highPass(this.angle(values[AT.lowCut]!), SECOND_ORDER_Q);
    this.take(0, lowCut);
    design.lowPass(this.angle(values[AT.highCut]!), SECOND_ORDER_Q);
    this.take(1, highCut);
    design.lowShelf(this.angle(values[AT.lowHz]!), values[AT.lowDb]!);
    this.take(2, 1);
    design.bell(this.angle(values[AT.bodyHz]!), values[AT.bodyQ]!, values[AT.bodyDb]!);
    this.take(3, 1);
    design.bell(this.angle(values[AT.edgeHz]!), values[AT.edgeQ]!, values[AT.edgeDb]!);
    this.take(4, 1);
    design.highShelf(this.angle(values[AT.highHz]!), values[AT.highDb]!);
    this.take(5, 1);
  }

  private take(section: number, share: number): void {
    const { g, k, direct, band, low } = this.design;
    this.row.aim(section, g, k, 1 + share * (direct - 1), share * band, share * low);
  }

  private angle(hz: number): number {
    const most = 0.49 * this.sampleRate;
    return (2 * Math.PI * (hz > most ? most : hz)) / this.sampleRate;
  }
}
