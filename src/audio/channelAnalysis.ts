import { analysisReportSchema, type AnalysisReport } from '../core/analysis/analysisReport';
import type { ToAnalyser } from './soundProtocol';

export interface ChannelAnalysis {
  /** Counts anew what is told since the beginning. */
  clear(): void;
  end(): void;
}

/** Reads what the audio thread leaves of a channel, in a worker, and tells what it found twelve times a second. */
export function startAnalysis(
  memory: SharedArrayBuffer,
  sampleRate: number,
  onReport: (report: AnalysisReport) => void,
): ChannelAnalysis {
  const worker = new Worker('/rt/analyser.worker.js', { type: 'module' });
  const tell = (message: ToAnalyser): void => worker.postMessage(message);
  worker.onmessage = (event: MessageEvent<unknown>) => onReport(analysisReportSchema.parse(event.data));
  tell({ type: 'begin', memory, sampleRate });
  return { clear: () => tell({ type: 'clear' }), end: () => worker.terminate() };
}
