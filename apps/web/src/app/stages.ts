/** Stages of jobs, in words. */
const STAGES: Readonly<Record<string, string>> = {
  waiting: 'waiting for a worker',
  starting: 'starting',
  reading: 'reading the transcript',
  listening: 'listening to the voices',
  vectors: 'weighing what is meant',
  segments: 'finding the chapters',
  scoring: 'scoring passages',
  choosing: 'choosing the best set',
  explaining: 'writing the reasons',
  done: 'done',
};

export function stageName(stage: string): string {
  return STAGES[stage] ?? stage;
}
