import refusedPorts from './refusedPorts.json' with { type: 'json' };
import { LaunchProblem } from '../cluster/processes.js';

/**
 * Ports that browsers refuse to open (WHATWG Fetch, "port blocking"), from 1 024 up. A server there would run and
 * nobody could visit it. The start command reads the same list before it installs anything.
 */
const BLOCKED = new Set<number>(refusedPorts);

/** @throws LaunchProblem when the text is no port that people could visit */
export function readPort(text: string): number {
  const port = Number(text);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new LaunchProblem(`LAVACRUM_PORT must be a port number from 1 to 65535 (got ${text})`);
  if (BLOCKED.has(port))
    throw new LaunchProblem(`LAVACRUM_PORT ${port} is a port that browsers refuse to open; choose another, such as 4180`);
  return port;
}
