import { chooseFile, chooseFiles, saveFile } from './localFiles';
import { progressText, soundName } from './soundFiles';

/** The field that was clicked last, and the link. */
let clicked: HTMLInputElement | HTMLAnchorElement;

beforeEach(() => {
  jest.spyOn(HTMLInputElement.prototype, 'click').mockImplementation(function (this: HTMLInputElement) {
    clicked = this;
  });
  jest.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
    clicked = this;
  });
});
afterEach(() => jest.restoreAllMocks());

function choose(...files: readonly File[]): void {
  Object.defineProperty(clicked, 'files', { value: files });
  clicked.dispatchEvent(new Event('change'));
}
const file = (name: string): File => new File(['x'], name);

test('one file is chosen, or none', () => {
  const taken = jest.fn();
  chooseFile('.wav', taken);
  expect(clicked).toMatchObject({ type: 'file', accept: '.wav', multiple: false });
  choose();
  expect(taken).not.toHaveBeenCalled();
  chooseFile('.wav', taken);
  choose(file('a.wav'));
  expect(taken.mock.calls).toEqual([[expect.objectContaining({ name: 'a.wav' })]]);
});

test('any number of files is chosen, or none', () => {
  const taken = jest.fn();
  chooseFiles('audio/*', taken);
  expect(clicked).toMatchObject({ multiple: true });
  choose();
  expect(taken).not.toHaveBeenCalled();
  chooseFiles('audio/*', taken);
  choose(file('a.wav'), file('b.wav'));
  expect(taken.mock.calls[0]![0].map(({ name }: File) => name)).toEqual(['a.wav', 'b.wav']);
});

test.each(['text', new Uint8Array([1, 2])])('a file is saved under its name, and its memory given back', (content) => {
  const [made, freed] = [jest.fn(() => 'blob:1'), jest.fn()];
  Object.assign(URL, { createObjectURL: made, revokeObjectURL: freed });
  saveFile('Salt Pier, moves.csv', content, 'text/csv');
  expect(clicked).toMatchObject({ download: 'Salt Pier, moves.csv', href: 'blob:1' });
  expect(made).toHaveBeenCalledWith(expect.objectContaining({ type: 'text/csv', size: content.length }));
  expect(freed.mock.calls).toEqual([['blob:1']]);
});

test.each([
  ['Hum, first call.wav', 'Hum, first call'],
  ['tape.2.final.flac', 'tape.2.final'],
  ['без имени.mp3', 'без имени'],
  ['.wav', 'Sound'],
  ['no ending', 'no ending'],
  [`${'x'.repeat(150)}.wav`, 'x'.repeat(100)],
])('a sound from “%s” is called “%s”', (name, called) => expect(soundName({ name })).toBe(called));

test.each([
  [{ state: 'receiving', received: 50, ahead: 0 } as const, '25 % sent'],
  [{ state: 'receiving', received: 900, ahead: 0 } as const, '100 % sent'],
  [{ state: 'waiting', received: 200, ahead: 1 } as const, 'waiting, 2 before it'],
  [{ state: 'working', received: 200, ahead: 0 } as const, 'reading it'],
])('how far it has come: %j is "%s"', (status, text) => expect(progressText({ size: 200 }, status)).toBe(text));

test('an empty file is sent at once', () => {
  expect(progressText({ size: 0 }, { state: 'receiving', received: 0, ahead: 0 })).toBe('0 % sent');
});
