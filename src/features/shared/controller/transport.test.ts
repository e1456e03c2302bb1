import { useRecording } from '../../../data/recording';
import { obeyTransport } from './transport';

const studio = { play: jest.fn(() => Promise.resolve()), stop: jest.fn(), locate: jest.fn() };
const calls = (): readonly number[] => [studio.locate, studio.play, studio.stop].map(({ mock }) => mock.calls.length);

beforeEach(() => jest.clearAllMocks());

test('start begins at the start of the piece, continue where it stands', () => {
  useRecording.setState({ playing: false });
  obeyTransport(studio, 'continue');
  expect(calls()).toEqual([0, 1, 0]);
  obeyTransport(studio, 'start');
  expect(calls()).toEqual([1, 2, 0]);
  expect(studio.locate).toHaveBeenCalledWith(0);
});

test('what plays goes back to the start by start, goes on by continue, and ends by stop', () => {
  useRecording.setState({ playing: true });
  obeyTransport(studio, 'start');
  obeyTransport(studio, 'continue');
  expect(calls()).toEqual([1, 0, 0]);
  obeyTransport(studio, 'stop');
  expect(calls()).toEqual([1, 0, 1]);
});

test('stop while nothing plays does nothing', () => {
  useRecording.setState({ playing: false });
  obeyTransport(studio, 'stop');
  expect(calls()).toEqual([0, 0, 0]);
});
