import { useEffect, useRef, useState } from 'react';
import type { AnalysisReport } from '../../../core/analysis/analysisReport';
import { startAnalysis, type ChannelAnalysis } from '../../../audio/channelAnalysis';
import { useStudio } from '../../studio/StudioProvider';

/** Analysis of a channel while it is shown. */
export function useChannelAnalysis(channel: string): {
  readonly report: AnalysisReport | null;
  readonly clear: () => void;
} {
  const { studio } = useStudio();
  const [report, setReport] = useState<AnalysisReport | null>(null);
  const analysis = useRef<ChannelAnalysis | null>(null);
  useEffect(() => {
    const { player } = studio;
    const letGo = player.watch(channel);
    const started = startAnalysis(player.scope, player.sampleRate, setReport);
    analysis.current = started;
    return () => {
      letGo();
      started.end();
      setReport(null);
    };
  }, [studio, channel]);
  return { report, clear: () => analysis.current?.clear() };
}
