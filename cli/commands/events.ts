import { effectOf } from '../../src/core/effects/catalogue';
import { BadData, describeIssue, eventFileSchema, ownParam, readValue } from '../../src/core/exchange/chainFile';
import { secondsToBeats } from '../../src/core/music/tempo';
import type { ValueContext } from '../../src/core/params/param';
import { toEngineNumber } from '../../src/core/params/resolve';
import type { Lane, Slot } from '../../src/core/piece/piece';

/** What hands did becomes held steps: from each time on the parameter has the value. */
export function lanesOfEvents(file: unknown, slots: readonly Slot[], channel: string, context: ValueContext): Lane[] {
  const result = eventFileSchema.safeParse(file);
  if (!result.success) throw new BadData(`The events file is not understood: ${describeIssue(result.error)}.`);
  const lanes = new Map<string, Lane>();
  for (const event of [...result.data.events].sort((a, b) => a.seconds - b.seconds)) {
    const slot = slots[event.effect];
    const param = slot ? ownParam(effectOf(slot.effect), event.param) : undefined;
    if (!slot || !param)
      throw new BadData(`An event names effect ${event.effect}, "${event.param}", which is not in the chain.`);
    const value = readValue(param, `${slot.effect}.${event.param}`, event.value, [], context);
    const key = `${event.effect}.${event.param}`;
    const base = slot.values[event.param] ?? param.initial;
    const lane = lanes.get(key) ?? {
      id: `event-${key}`,
      target: { kind: 'effect', channel, effect: slot.id, param: event.param },
      unit: 'own' as const,
      on: true,
      points: [{ beat: 0, value: toEngineNumber(param, base, context), shape: 'hold' as const, bend: 0 }],
    };
    lane.points.push({
      beat: secondsToBeats(event.seconds, context.tempo),
      value: toEngineNumber(param, value, context),
      shape: 'hold',
      bend: 0,
    });
    lanes.set(key, lane);
  }
  return [...lanes.values()];
}
