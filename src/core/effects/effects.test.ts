import { presetValues } from './testing';
import { STEP_FRAMES, makeStereoBlock } from '../dsp/blocks';
import { makeRandom } from '../dsp/random';
import { paramAtPosition, toEngineNumber } from '../params/resolve';
import { paramsSchema } from '../params/schema';
import { PLAIN_CONTEXT } from '../params/param';
import { EFFECTS } from './catalogue';
import { implementationOf } from './implementations';
import { numbersOf } from './handles';

describe.each(EFFECTS.map((effect) => [effect.id, effect] as const))('%s', (id, effect) => {
  const implementation = implementationOf(id);

  test('has a neutral preset and at least six more for a purpose, all with values that fit', () => {
    expect(effect.presets.length).toBeGreaterThanOrEqual(7);
    expect(effect.presets[0]!.id).toBe('neutral');
    expect(new Set(effect.presets.map((preset) => preset.name)).size).toBe(effect.presets.length);
    for (const preset of effect.presets) {
      expect(preset.purpose.length).toBeGreaterThan(8);
      expect(paramsSchema(effect.params).safeParse(presetValues(id, preset.id)).error).toBeUndefined();
    }
  });

  test('says in one line what each parameter does, and heads its card with some of them', () => {
    for (const param of Object.values(effect.params)) expect(param.hint).toMatch(/^[A-Z0-9].{8,140}[.]$/);
    for (const param of effect.headline) expect(Object.keys(effect.params)).toContain(param);
  });

  test('every preset has a picture whose handles pull parameters that there are', () => {
    for (const preset of effect.presets) {
      const values = presetValues(id, preset.id);
      const picture = implementation.picture(values, PLAIN_CONTEXT);
      const handles = ('handles' in picture ? picture.handles : undefined) ?? [];
      for (const handle of handles) {
        for (const pull of [handle.pullX, handle.pullY])
          if (pull)
            expect(pull.value).toBeCloseTo(
              Math.min(numbersOf(effect.params, values, PLAIN_CONTEXT)(pull.param), handle.most ?? Infinity),
              6,
            );
      }
      expect(JSON.stringify(picture)).not.toMatch(/null,null|NaN/);
    }
  });

  test('writes every sample of what it works in, which is full of what another effect left', () => {
    const random = makeRandom(7);
    const rowFor = (preset: string): Float64Array => {
      const values = presetValues(id, preset);
      return Float64Array.from(effect.paramIds, (param) =>
        toEngineNumber(effect.params[param]!, values[param] ?? effect.params[param]!.initial, PLAIN_CONTEXT),
      );
    };
    for (const { id: preset } of effect.presets) {
      const row = rowFor(preset);
      const [clean, other] = [implementation.createProcessor(48_000), implementation.createProcessor(48_000)];
      clean.reset(0, row);
      other.reset(0, row);
      const input = makeStereoBlock();
      let away = 0;
      for (let step = 0; step < 90; step += 1) {
        // Silence, sound, silence again: each of them may be gone through in its own way.
        const size = step < 30 || step >= 60 ? 0 : 0.3;
        for (let i = 0; i < STEP_FRAMES; i += 1) {
          input.left[i] = size * (random() - 0.5);
          input.right[i] = size * (random() - 0.5);
        }
        const [wet, left] = [makeStereoBlock(), makeStereoBlock()];
        left.left.fill(NaN);
        left.right.fill(NaN);
        clean.process(input, wet, row);
        other.process(input, left, row);
        for (let i = 0; i < STEP_FRAMES; i += 1)
          if (left.left[i] !== wet.left[i] || left.right[i] !== wet.right[i]) away += 1;
      }
      expect([preset, away]).toEqual([preset, 0]);
    }
  });

  test('ten seconds of every parameter at random stay finite and bounded, and become silent afterwards', () => {
    const random = makeRandom(20_261_125);
    const processor = implementation.createProcessor(48_000);
    const row = Float64Array.from(effect.paramIds, (param) =>
      toEngineNumber(effect.params[param]!, effect.params[param]!.initial, PLAIN_CONTEXT),
    );
    processor.reset(0, row);
    const [input, wet] = [makeStereoBlock(), makeStereoBlock()];
    let peak = 0;
    let finite = true;
    for (let step = 0; step < 7500; step += 1) {
      if (step % 8 === 0) {
        const index = Math.floor(random() * row.length);
        const edge = random();
        row[index] = paramAtPosition(
          effect.params[effect.paramIds[index]!]!,
          edge < 0.15 ? 0 : edge > 0.85 ? 1 : random(),
        );
      }
      for (let i = 0; i < STEP_FRAMES; i += 1) {
        input.left[i] = random() - 0.5;
        input.right[i] = random() - 0.5;
      }
      processor.process(input, wet, row);
      for (let i = 0; i < STEP_FRAMES; i += 1) {
        peak = Math.max(peak, Math.abs(wet.left[i]!), Math.abs(wet.right[i]!));
        finite &&= Number.isFinite(wet.left[i]!) && Number.isFinite(wet.right[i]!);
      }
    }
    expect(finite).toBe(true);
    expect(peak).toBeLessThan(1000);
  });

  test('costs no more over silence than over sound, and says when it rings no more', () => {
    const row = Float64Array.from(effect.paramIds, (param) =>
      toEngineNumber(effect.params[param]!, presetValues(id)[param] ?? effect.params[param]!.initial, PLAIN_CONTEXT),
    );
    const processor = implementation.createProcessor(48_000);
    processor.reset(0, row);
    const [input, wet] = [makeStereoBlock(), makeStereoBlock()];
    input.left.fill(0.5);
    for (let step = 0; step < 200; step += 1) processor.process(input, wet, row);
    input.left.fill(0);
    let steps = 0;
    for (; steps < 40_000 && !processor.silent; steps += 1) processor.process(input, wet, row);
    expect(processor.silent).toBe(true);
    expect([...wet.left, ...wet.right].every((x) => x === 0 || Math.abs(x) > 1e-35)).toBe(true);
  });
});
