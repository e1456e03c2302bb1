import { analysisReportSchema, type AnalysisReport } from '../core/analysis/analysisReport';
import type { ToAnalyser } from './soundProtocol';

export interface ChannelAnalysis {
  /** Resets what is accumulated since the beginning. */
  clear(): void;
  end(): void;
}

/**
 * Reads the sound of a channel that the audio thread writes, in a worker, and reports its analysis twelve times a
 * second.
 */
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
