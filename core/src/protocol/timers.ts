/** A time that is kept at the chair. */
export interface Timer {
  /** When it was started, milliseconds since 1970, UTC. */
  readonly startedMs: number;
  readonly seconds: number;
  /** When somebody stopped it. */
  readonly stoppedMs?: number;
}

/** What a timer shows: so much is left, below 0 when it is over. @param nowMs of the same clock as `startedMs` */
export const leftMs = ({ startedMs, seconds, stoppedMs }: Timer, nowMs: number): number =>
  seconds * 1000 - ((stoppedMs ?? nowMs) - startedMs);

/** One look at the clocks of a device. */
export interface Look {
  /** The clock on the wall, which somebody may set, ms. */
  readonly wallMs: number;
  /** One that only goes forward, ms from anywhere; it may rest while the device sleeps. */
  readonly steadyMs: number;
}

/** A clock of a device that can't be set back under running timers. */
export interface Clock {
  /** What the wall's clock is behind or ahead of the truth by, as the server said or the steady clock shows, ms. */
  readonly offsetMs: number;
  readonly at: Look;
  /** Somebody has set the device's clock back by so much while it ran. */
  readonly setBackMs?: number;
}

/** Clocks of one device are apart by less than this while nobody sets them, ms. House value. */
const SET_MS = 2000;

/** @param serverMs what the server's clock said at that look, where it was asked */
export const startClock = (at: Look, serverMs?: number): Clock => ({
  offsetMs: serverMs === undefined ? 0 : serverMs - at.wallMs,
  at,
});

/**
 * The clock after another look. Ahead of the steady clock, the device slept: the wall is right. Behind it, somebody has
 * set the wall's clock back: the steady clock goes on. The server's word goes before both for the time; that the clock
 * was set back is kept, also where the server answered before anybody looked.
 */
export function lookAgain(c: Clock, at: Look, serverMs?: number): Clock {
  const behindMs = at.steadyMs - c.at.steadyMs - (at.wallMs - c.at.wallMs);
  const setBackMs = behindMs > SET_MS ? behindMs : c.setBackMs;
  const offsetMs = serverMs === undefined ? c.offsetMs + (behindMs > SET_MS ? behindMs : 0) : serverMs - at.wallMs;
  return { offsetMs, at, ...(setBackMs !== undefined && { setBackMs }) };
}

/** The time by a clock at its last look, ms since 1970. */
export const timeOf = (c: Clock): number => c.at.wallMs + c.offsetMs;
