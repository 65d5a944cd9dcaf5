import { statfsSync } from 'node:fs';
import type { Request, RequestHandler } from 'express';
import { ApiProblem } from '../problem';

/**
 * What is left free for the database's own files, bytes: its log goes on in files of 16 MB, and a checkpoint writes before it frees. Without it a full disk stops the
 * database in the middle of its log, where it waits for ever.
 */
export const RESERVE = 96 * 2 ** 20;
/** What is sent takes up to so much more once it is stored, with its indexes and its log. */
const GROWS = 8;

/** Free bytes where the shop is kept. */
export type Room = () => number;

export const roomIn =
  (folder: string): Room =>
  () => {
    const { bavail, bsize } = statfsSync(folder);
    return bavail * bsize;
  };

/** @throws ApiProblem where what comes would not leave the database its room */
export function needRoom(room: Room, bytes: number): void {
  if (room() < RESERVE + bytes) throw new ApiProblem('disk-full');
}

/** Whether a request may store something: it neither only reads nor only works something out. */
export const mayStore = ({ method, path }: Pick<Request, 'method' | 'path'>): boolean =>
  method !== 'GET' && method !== 'HEAD' && !path.startsWith('/compute/');

/** Refuses to store while the disk is nearly full; reading, working out and what makes room go on. */
export const onlyWithRoom =
  (room: Room): RequestHandler =>
  (request, _response, next) => {
    if (mayStore(request)) needRoom(room, GROWS * Number(request.headers['content-length'] ?? 0));
    next();
  };
