import { copyBlock, type StereoBlock } from '../../dsp/blocks';
import { smoothToward } from '../../dsp/onePole';
import { FilterCascade } from '../../dsp/filterCascade';
import { MatchedFilter } from '../../dsp/matchedFilter';
import type { EffectProcessor } from '../define';
import { SECOND_ORDER_Q } from '../filter/processor';
import { commonParams } from '../common';
import { Insert } from '../insert';
import { paramIndices } from '../paramIndices';
import { ChangeDetector } from '../changeDetector';
import { eqParams } from './params';

const P = paramIndices(eqParams);
const BANDS = 6;
const PLACES = Object.keys({ ...commonParams, ...eqParams }).length;
const SWITCH_SECONDS = 0.01;

/** Six state-variable filters in series on each side, whose responses are those of analogue cuts, shelves and bells. */
export class EqProcessor extends Insert implements EffectProcessor {
  private readonly row: FilterCascade;
  private readonly design = new MatchedFilter();
  private lowCut = 0;
  private highCut = 0;
  private readonly seen = new ChangeDetector(PLACES);

  /** @param withKernel false leaves all work to TypeScript, which tests compare */
  constructor(sampleRate: number, withKernel = true) {
    super(sampleRate, 0.5, SWITCH_SECONDS);
    this.row = new FilterCascade(BANDS, withKernel);
  }

  reset(_seconds: number, values: Float64Array): void {
    this.row.clear();
    this.seen.invalidate();
    this.locate(0, values);
  }

  locate(_seconds: number, values: Float64Array): void {
    this.lowCut = values[P.lowCutOn]!;
    this.highCut = values[P.highCutOn]!;
    this.quiet.reset();
    this.seen.invalidate();
  }

  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void {
    this.quiet.measureInput(input);
    copyBlock(input.left, wet.left);
    copyBlock(input.right, wet.right);
    if (!this.isUnchanged(values)) this.aim(values);
    this.row.process(wet);
    this.quiet.measureOutput(wet);
  }

  /** True while nothing has changed since the last step: then the cascade has its goals. */
  private isUnchanged(values: Float64Array): boolean {
    const moved = this.seen.update(values);
    return !moved && this.lowCut === values[P.lowCutOn] && this.highCut === values[P.highCutOn];
  }

  private aim(values: Float64Array): void {
    this.lowCut = smoothToward(this.lowCut, values[P.lowCutOn]!, this.share);
    this.highCut = smoothToward(this.highCut, values[P.highCutOn]!, this.share);
    const { design, lowCut, highCut } = this;
    // A cut that is switched is crossfaded from bypass by its smoothed switch.
    design.highPass(this.angle(values[P.lowCut]!), SECOND_ORDER_Q);
    this.take(0, lowCut);
    design.lowPass(this.angle(values[P.highCut]!), SECOND_ORDER_Q);
    this.take(1, highCut);
    design.lowShelf(this.angle(values[P.lowHz]!), values[P.lowDb]!);
    this.take(2, 1);
    design.bell(this.angle(values[P.bodyHz]!), values[P.bodyQ]!, values[P.bodyDb]!);
    this.take(3, 1);
    design.bell(this.angle(values[P.edgeHz]!), values[P.edgeQ]!, values[P.edgeDb]!);
    this.take(4, 1);
    design.highShelf(this.angle(values[P.highHz]!), values[P.highDb]!);
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
