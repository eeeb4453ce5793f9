/** Nobody waits for a piece of work any more. */
export class CalledOff extends Error {
  constructor() {
    super('Called off; nothing of it was kept.');
  }
}
