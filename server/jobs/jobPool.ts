import { fork, type ChildProcess } from 'node:child_process';
import * as z from 'zod';
import { Problem } from '../http/problem';
import { reportSchema, type Job, type Report } from './jobs';

export interface JobPoolOptions {
  /** The built program of a job process. */
  readonly program: string;
  /** Most processes at a time. */
  readonly size: number;
  /** Time without a report after which a job is ended, in milliseconds. */
  readonly stallMs?: number;
  /** Longest time of a job, in milliseconds. */
  readonly limitMs?: number;
  /** Idle time after which a process is ended, in milliseconds. */
  readonly idleMs?: number;
  /** Memory limit of a process in MB; a small one when left out, for untrusted input. */
  readonly maxRssMb?: number;
}

interface Waiting {
  readonly job: Job;
  readonly signal: AbortSignal;
  readonly begin: (child: ChildProcess) => void;
  readonly reject: (error: unknown) => void;
}

const HEAP_MB = 256;
const MAX_RSS_MB = 280;
/** Additional time for a new process to start. */
const START_MS = 10_000;

/** The job was aborted because its client has gone. */
export class JobAborted extends Error {}

/**
 * Runs jobs on untrusted bytes in separate processes with limits of memory and time, whose crash does not affect the
 * server. Jobs beyond the number of processes wait in order.
 */
export class JobPool {
  private readonly idle: ChildProcess[] = [];
  private readonly waiting: Waiting[] = [];
  private readonly children = new Set<ChildProcess>();
  /** Processes that have not reported yet. */
  private readonly starting = new Set<ChildProcess>();
  private readonly idleTimers = new Map<ChildProcess, ReturnType<typeof setTimeout>>();
  private readonly stallMs: number;
  private readonly limitMs: number;
  private readonly idleMs: number;
  private closed = false;

  constructor(private readonly options: JobPoolOptions) {
    this.stallMs = options.stallMs ?? 10_000;
    this.limitMs = options.limitMs ?? 240_000;
    this.idleMs = options.idleMs ?? 30_000;
  }

  /** Number of jobs ahead of a job in the queue; 0 once it runs. */
  ahead(job: Job): number {
    return this.waiting.findIndex((waiting) => waiting.job === job) + 1;
  }

  /**
   * @param result schema of the job's result
   * @param signal ends the job, or takes it out of the queue
   * @throws Problem with what is wrong with the bytes; JobAborted when the signal came
   */
  async run<T>(job: Job, result: z.ZodType<T>, signal: AbortSignal): Promise<T> {
    const child = await this.free(job, signal);
    try {
      return result.parse(await this.work(child, job, signal));
    } finally {
      this.release(child);
    }
  }

  /** Waits for an idle process. */
  private free(job: Job, signal: AbortSignal): Promise<ChildProcess> {
    if (signal.aborted || this.closed) return Promise.reject(new JobAborted());
    return new Promise((resolve, reject) => {
      const waiting: Waiting = { job, signal, begin: resolve, reject };
      signal.addEventListener('abort', () => {
        const at = this.waiting.indexOf(waiting);
        if (at >= 0) this.waiting.splice(at, 1);
        reject(new JobAborted());
      });
      this.waiting.push(waiting);
      this.next();
    });
  }

  private next(): void {
    while (this.waiting.length > 0) {
      const child = this.idle.pop() ?? (this.children.size < this.options.size ? this.spawn() : undefined);
      if (!child) return;
      this.notIdle(child);
      this.waiting.shift()!.begin(child);
    }
  }

  private spawn(): ChildProcess {
    const child = fork(this.options.program, [String(this.options.maxRssMb ?? MAX_RSS_MB)], {
      // The process collects its unused memory between jobs, which it has to be let.
      execArgv: [`--max-old-space-size=${HEAP_MB}`, '--expose-gc'],
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
      serialization: 'advanced',
      env: { PATH: process.env.PATH, NODE_ENV: process.env.NODE_ENV ?? 'production' },
    });
    this.children.add(child);
    this.starting.add(child);
    child.once('message', () => this.starting.delete(child));
    child.on('error', () => child.kill('SIGKILL'));
    child.on('exit', () => {
      this.children.delete(child);
      this.starting.delete(child);
      this.notIdle(child);
      this.next();
    });
    return child;
  }

  /** Ends an idle process; it is given no job while it ends. */
  private end(child: ChildProcess): void {
    this.notIdle(child);
    child.kill();
  }

  private notIdle(child: ChildProcess): void {
    const at = this.idle.indexOf(child);
    if (at >= 0) this.idle.splice(at, 1);
    clearTimeout(this.idleTimers.get(child));
    this.idleTimers.delete(child);
  }

  private release(child: ChildProcess): void {
    if (child.exitCode !== null || child.signalCode !== null || child.killed || this.closed) return;
    this.idle.push(child);
    this.idleTimers.set(
      child,
      setTimeout(() => this.end(child), this.idleMs),
    );
    this.next();
  }

  private work(child: ChildProcess, job: Job, signal: AbortSignal): Promise<unknown> {
    return new Promise((resolve, reject) => {
      const end = (settle: () => void): void => {
        clearTimeout(limit);
        clearTimeout(stall);
        child.off('message', hear);
        child.off('exit', lost);
        signal.removeEventListener('abort', abort);
        settle();
      };
      const kill = (error: unknown): void => {
        child.kill('SIGKILL');
        end(() => reject(error));
      };
      const tooLong = (): void =>
        kill(new Problem(422, 'This file cannot be used', `Working on it took too long. ${ASIDE}`));
      const abort = (): void => kill(new JobAborted());
      const lost = (): void =>
        end(() => reject(new Problem(422, 'This file cannot be used', `Working on it took too much memory. ${ASIDE}`)));
      const hear = (message: unknown): void => {
        clearTimeout(stall);
        const report = reportSchema.parse(message);
        if (report.kind === 'progress') {
          stall = setTimeout(tooLong, this.stallMs);
          return;
        }
        if (report.retire) child.kill('SIGKILL');
        end(() => settle(report));
      };
      const settle = (report: Exclude<Report, { kind: 'progress' }>): void => {
        if (report.kind === 'done') resolve(report.result);
        else if (report.kind === 'refused') reject(new Problem(report.status, report.title, report.detail));
        else reject(Object.assign(new Error(report.message), { code: report.code }));
      };
      const limit = setTimeout(tooLong, this.limitMs);
      let stall = setTimeout(tooLong, this.stallMs + (this.starting.has(child) ? START_MS : 0));
      child.on('message', hear);
      child.on('exit', lost);
      signal.addEventListener('abort', abort);
      if (signal.aborted) abort();
      else if (child.connected) child.send(job);
      else lost();
    });
  }

  /** Ends all processes; jobs that run or wait are rejected as aborted. */
  close(): void {
    this.closed = true;
    for (const { reject } of this.waiting.splice(0)) reject(new JobAborted());
    for (const timer of this.idleTimers.values()) clearTimeout(timer);
    for (const child of this.children) child.kill('SIGKILL');
  }
}

const ASIDE = 'It is damaged, or made to take more than it holds. Export it again, or in parts.';
