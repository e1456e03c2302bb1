import { defineEffect, type Preset } from '../define';
import { flangerParams } from './params';

const presets: readonly Preset[] = [
  { id: 'neutral', name: 'Neutral', purpose: 'A comb that stands still.', values: { depth: 0 } },
  {
    id: 'jetty',
    name: 'Off the jetty',
    purpose: 'Long slow sweep over a whole mix or a pad.',
    values: { delay: 3.2, depth: 0.95, rate: '4 bars', feedback: 0.25 },
  },
  {
    id: 'twoTapes',
    name: 'Two tapes',
    purpose: 'Through zero: the moment at which everything falls together.',
    values: { throughZero: true, delay: 4, depth: 1, rate: 0.11, turned: true },
  },
  {
    id: 'tinRoof',
    name: 'Tin roof',
    purpose: 'Sharp, ringing and metallic, for drums and hats.',
    values: { delay: 0.7, feedback: 0.78, depth: 0.6, rate: '1 bar' },
  },
  {
    id: 'hollowReed',
    name: 'Hollow reed',
    purpose: 'Turned over: a voice through a pipe.',
    values: { delay: 1.1, feedback: -0.55, turned: true, depth: 0.35, rate: 0.3 },
  },
  {
    id: 'handSweep',
    name: 'By hand',
    purpose: 'Stands until its place is ridden: draw the sweep of a transition.',
    values: { delay: 3, depth: 0, feedback: 0.5 },
  },
  {
    id: 'crossing',
    name: 'Crossing',
    purpose: 'The sides sweep against each other: wide keys and guitars.',
    values: { delay: 2, depth: 0.8, phase: 180, rate: 0.17, feedback: 0.2 },
  },
];

export const flanger = defineEffect({
  id: 'flanger',
  name: 'Flanger',
  family: 'modulation',
  purpose: 'The sound against a copy of itself whose lateness swings: a comb that travels.',
  searchWords: 'jet comb through zero LFO whoosh tape',
  params: flangerParams,
  presets,
  headline: ['delay', 'feedback'],
});
