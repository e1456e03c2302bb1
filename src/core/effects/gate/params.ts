import { choice, figure, rate, ratio } from '../../params/make';
import { LOG } from '../../params/taper';
import type { NumberParam, Params } from '../../params/param';
import { WHOLLY_WET_LINEAR } from '../common';

export const MAX_STEPS = 16;
export const STEP_IDS = Array.from({ length: MAX_STEPS }, (_, i) => `step${i + 1}`);

const step = (n: number): NumberParam =>
  ratio({
    label: `Step ${n}`,
    group: 'Steps',
    hint: 'How far it opens at this step; nothing keeps it shut.',
    initial: n % 2 === 1 ? 1 : 0,
  });

export const gateParams = {
  ...WHOLLY_WET_LINEAR,
  mode: choice({
    mutesOnChange: true,
    label: 'Opens',
    group: 'Gate',
    hint: 'By a pattern of steps, or by the sound’s own level.',
    initial: 'pattern',
    options: [
      { id: 'pattern', label: 'by a pattern' },
      { id: 'level', label: 'by its level' },
    ],
  }),
  rate: rate({
    label: 'Step',
    group: 'Gate',
    hint: 'How long a step of the pattern is: short flutters, long pumps.',
    min: 0.05,
    max: 40,
    initial: '1/16',
  }),
  length: figure({
    label: 'Steps',
    group: 'Gate',
    hint: 'After how many steps the pattern begins again.',
    unit: 'count',
    min: 1,
    max: MAX_STEPS,
    initial: 8,
    notches: [3, 4, 6, 8, 12, 16],
    smoothingSeconds: 0,
  }),
  open: ratio({
    label: 'Open for',
    group: 'Gate',
    hint: 'Which share of each step it stays open: little is choppy, much nearly flows.',
    min: 0.05,
    initial: 1,
  }),
  swing: ratio({
    label: 'Swing',
    group: 'Gate',
    hint: 'How late every second step comes: a third makes triplets.',
    max: 0.6,
    initial: 0,
  }),
  smooth: figure({
    label: 'Smoothing',
    group: 'Gate',
    hint: 'How long it takes to open and shut: short is hard, long swells.',
    unit: 'ms',
    min: 2,
    max: 200,
    taper: LOG,
    initial: 6,
  }),
  depth: ratio({
    label: 'Depth',
    group: 'Gate',
    hint: 'How much is taken while it is shut: at the right all.',
    initial: 1,
  }),
  threshold: figure({
    label: 'Threshold',
    group: 'Level',
    hint: 'Over this level it opens; it shuts six decibels under it.',
    unit: 'db',
    min: -80,
    max: 0,
    initial: -40,
  }),
  hold: figure({
    label: 'Hold',
    group: 'Level',
    hint: 'How long it stays open at least: short sounds do not chatter.',
    unit: 'ms',
    min: 0,
    max: 1000,
    initial: 40,
  }),
  release: figure({
    label: 'Release',
    group: 'Level',
    hint: 'How slowly it shuts: long lets the ends of notes ring.',
    unit: 'ms',
    min: 5,
    max: 2000,
    taper: LOG,
    initial: 120,
  }),
  step1: step(1),
  step2: step(2),
  step3: step(3),
  step4: step(4),
  step5: step(5),
  step6: step(6),
  step7: step(7),
  step8: step(8),
  step9: step(9),
  step10: step(10),
  step11: step(11),
  step12: step(12),
  step13: step(13),
  step14: step(14),
  step15: step(15),
  step16: step(16),
} satisfies Params;
