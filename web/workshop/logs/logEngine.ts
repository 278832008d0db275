import { simulatedLog, type SimulatedMachine } from '@core/workshop/logs/simulatedLogger.js';
import type { LogColumns } from '@core/workshop/logs/columns.js';
import type { LogReport } from '@core/workshop/logs/reader.js';
import type { ReadPart } from '@core/physics/diagnosis/sensors.js';
import { lookAtLog, readLogFile, type Looked, type LogWay } from './readLogFile.js';

/** ms between two reports to the screen */
const REPORT_MS = 100;

/** The reading of logs, beside the screen. Whoever stops it ends the worker. */
export class LogEngine {
  look(file: Blob, parts: readonly ReadPart[], known: LogColumns | null): Promise<Looked> {
    return lookAtLog(file, parts, known);
  }

  read(file: Blob, way: LogWay, onProgress: (share: number) => void): Promise<LogReport | null> {
    let told = 0;
    return readLogFile(file, way, (share) => {
      if (performance.now() - told < REPORT_MS) return;
      told = performance.now();
      onProgress(share);
    });
  }

  /** What the logger that ships with the application writes of a machine. */
  simulate(machine: SimulatedMachine): Blob {
    return new Blob([...simulatedLog(machine)], { type: 'text/csv' });
  }
}
