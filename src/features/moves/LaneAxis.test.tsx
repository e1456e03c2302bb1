import { effectOf } from '../../core/effects/catalogue';
import { channelParams, type Lane, type Target } from '../../core/piece/piece';
import { axisMarks } from './LaneAxis';
import { shownLanes } from './shownLanes';

const context = { tempo: { bpm: 92, beatsPerBar: 4 }, sampleRate: 48_000 };
const yOf =
  (height: number) =>
  (position: number): number =>
    12 + (1 - position) * (height - 24);

test('the axis of a time carries note values where they lie, never two in each other’s way, the more the taller the lane is', () => {
  const time = effectOf('echo').params.timeL!;
  const counts = [112, 170, 260].map((height) => {
    const y = yOf(height);
    const marks = axisMarks(time, context, y);
    const places = marks.map(({ position }) => y(position)).sort((a, b) => a - b);
    for (let i = 1; i < places.length; i += 1) expect(places[i]! - places[i - 1]!).toBeGreaterThanOrEqual(17);
    expect(marks.map(({ says }) => says)).toEqual(expect.arrayContaining(['8000 ms', '0.1 ms']));
    const notes = marks.filter(({ says }) => /^1\/\d+$/.test(says));
    expect(notes.length).toBeGreaterThan(1);
    // A note is halved from one to the next: the longer is higher.
    const lengths = notes
      .map(({ position, says }) => ({ position, length: 1 / Number(says.slice(2)) }))
      .sort((a, b) => a.position - b.position);
    for (let i = 1; i < lengths.length; i += 1) expect(lengths[i]!.length).toBeGreaterThan(lengths[i - 1]!.length);
    return marks.length;
  });
  expect(counts[2]).toBeGreaterThan(counts[0]!);
});

test('a choice has its options on the axis, a switch both its ways, a level its unity', () => {
  expect(
    axisMarks(effectOf('reverb').params.freeze!, context, yOf(112))
      .map(({ says }) => says)
      .sort(),
  ).toEqual(['off', 'open', 'sealed']);
  expect(axisMarks(channelParams.mute, context, yOf(112)).map(({ says }) => says)).toEqual(['off', 'on']);
  expect(axisMarks(channelParams.gain, context, yOf(170)).map(({ says }) => says)).toContain('0.0 dB');
});

test('lanes in view are all, those chosen, or that of the rail touched last', () => {
  const target = (param: string): Target => ({ kind: 'channel', channel: 't', param });
  const lanes = ['gain', 'pan'].map((param): Lane => ({
    id: param,
    target: target(param),
    unit: 'own',
    on: true,
    points: [{ beat: 0, value: 0, shape: 'line', bend: 0 }],
  }));
  const ids = (choice: Parameters<typeof shownLanes>[1]): string[] => shownLanes(lanes, choice).map(({ id }) => id);
  expect(ids({ lanesShown: 'all', chosenLanes: [], touched: null })).toEqual(['gain', 'pan']);
  expect(ids({ lanesShown: 'chosen', chosenLanes: ['pan'], touched: target('gain') })).toEqual(['pan']);
  expect(ids({ lanesShown: 'touched', chosenLanes: ['pan'], touched: target('gain') })).toEqual(['gain']);
  expect(ids({ lanesShown: 'touched', chosenLanes: [], touched: null })).toEqual([]);
});
