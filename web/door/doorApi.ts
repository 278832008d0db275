import type { DoorPage } from '@core/workshop/owner-door/answers.js';
import type { Paper } from '@core/edge/papers/paper.js';
import type { Said } from '@core/workshop/owner-door/said.js';
import { say } from '@core/base/words/say.js';

/** Why a question at the door was not answered as hoped. */
export class DoorProblem extends Error {
  constructor(
    /** of the answer; 0: there was none */
    readonly status: number,
    message: string,
  ) {
    super(message);
    this.name = 'DoorProblem';
  }
}

/** The secret stands behind the hash sign: it goes to the server in a header, and nowhere else. */
export const secretOfPage = (): string => window.location.hash.slice(1);

/** @throws DoorProblem where there is no answer, or none that was hoped for */
async function send(path: string, body?: object): Promise<Response> {
  const answer = await fetch(`/api/door${path}`, {
    method: body ? 'POST' : 'GET',
    headers: { authorization: `Bearer ${secretOfPage()}`, ...(body ? { 'content-type': 'application/json' } : {}) },
    ...(body ? { body: JSON.stringify(body) } : {}),
    credentials: 'omit',
    referrerPolicy: 'no-referrer',
  }).catch(() => null);
  if (!answer) throw new DoorProblem(0, say('No connection. What you wrote is still here; try again.'));
  if (answer.ok) return answer;
  const given = (await answer.json().catch(() => null)) as { error?: { message?: string } } | null;
  throw new DoorProblem(answer.status, given?.error?.message ?? say('That could not be done now. Try again in a minute.'));
}
const ask = async <T>(path: string, body?: object): Promise<T> => (await send(path, body)).json() as Promise<T>;

export const readDoor = (): Promise<DoorPage> => ask('');
/** @param id made once for what is said: sent again it counts once */
export const sayAtDoor = (id: string, said: Said, file: string | null): Promise<DoorPage> => ask('', { id, said, file });
export const readReport = (number: number, language: string): Promise<Paper> => ask(`/reports/${number}?language=${language}`);
export const fetchFile = async (path: string): Promise<Blob> => (await send(path)).blob();

/** A file as the server takes it. @throws DoorProblem where it is too large */
export async function asAddress(file: Blob, type: string, mostBytes: number): Promise<string> {
  if (file.size > mostBytes)
    throw new DoorProblem(413, say('This file is larger than {mb} MB. Send a shorter one.', { mb: mostBytes / 1e6 }));
  const bytes = new Uint8Array(await file.arrayBuffer());
  let text = '';
  for (let at = 0; at < bytes.length; at += 0x8000) text += String.fromCharCode(...bytes.subarray(at, at + 0x8000));
  return `data:${type};base64,${btoa(text)}`;
}
