import { compilePlan } from './compilePlan';
import { render, type Rendered } from './render';
import { TREATED_CHANNEL, TREATED_SOUND, treatmentPiece, type Treatment } from './treatment';

/** Processes a sound by a chain, with the same engine that plays a piece. */
export function treat(treatment: Treatment): Rendered {
  const { chain, hear } = treatment;
  const last = [...chain].reverse().find((slot) => slot.on);
  const rendered = render({
    plan: compilePlan(treatmentPiece(treatment)),
    sounds: new Map([...(treatment.others ?? []), [TREATED_SOUND, treatment.sound]]),
    fromSample: 0,
    toSample: treatment.sound[0]?.length ?? 0,
    tail: treatment.tail,
    listening:
      hear !== 'mix' && last
        ? { channel: TREATED_CHANNEL, slot: hear === 'dry' ? null : last.id, hear, matched: false }
        : undefined,
  });
  if (!rendered) throw new Error('A render without a progress callback cannot be stopped.');
  return rendered;
}
