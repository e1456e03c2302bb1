import { judgeReportSchema, type JudgeReport } from '../core/analysis/judgeReport';
import type { ToJudge } from './soundProtocol';

export interface Judging {
  /** Counts anew what is told since the beginning. */
  clear(): void;
  end(): void;
}

/** Reads what the audio thread leaves of a channel, in a worker, and tells what it found twelve times a second. */
export function startJudging(
  memory: SharedArrayBuffer,
  sampleRate: number,
  onReport: (report: JudgeReport) => void,
): Judging {
  const worker = new Worker('/rt/judge.worker.js', { type: 'module' });
  const tell = (message: ToJudge): void => worker.postMessage(message);
  worker.onmessage = (event: MessageEvent<unknown>) => onReport(judgeReportSchema.parse(event.data));
  tell({ type: 'begin', memory, sampleRate });
  return { clear: () => tell({ type: 'clear' }), end: () => worker.terminate() };
}
