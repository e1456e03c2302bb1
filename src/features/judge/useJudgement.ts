import { useEffect, useRef, useState } from 'react';
import type { JudgeReport } from '../../core/analysis/judgeReport';
import { startJudging, type Judging } from '../../audio/judging';
import { useStudio } from '../studio/StudioProvider';

/** What the judge says of a channel now, for as long as it is looked at. */
export function useJudgement(channel: string): { readonly report: JudgeReport | null; readonly clear: () => void } {
  const { studio } = useStudio();
  const [report, setReport] = useState<JudgeReport | null>(null);
  const judging = useRef<Judging | null>(null);
  useEffect(() => {
    const { player } = studio;
    const letGo = player.watch(channel);
    const started = startJudging(player.scope, player.sampleRate, setReport);
    judging.current = started;
    return () => {
      letGo();
      started.end();
      setReport(null);
    };
  }, [studio, channel]);
  return { report, clear: () => judging.current?.clear() };
}
