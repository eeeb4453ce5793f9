/** Why a value was refused. The server maps the code to a status; the sentence is for people. */
export type RefusalCode =
  | 'tooth-unknown'
  | 'spectrum-wrong'
  | 'shade-unknown'
  | 'reading-missing'
  | 'mesh-invalid'
  | 'mesh-empty'
  | 'stl-broken'
  | 'stl-empty'
  | 'ply-broken'
  | 'ply-empty'
  | 'number-invalid'
  | 'calibration-zero'
  | 'points-coincide'
  | 'landmark-outside'
  | 'parameter-out-of-range'
  | 'scan-without-teeth'
  | 'stroke-not-possible'
  | 'marks-too-few'
  | 'no-jaw'
  | 'obj-broken'
  | 'obj-empty'
  | 'mesh-unknown'
  | 'mesh-too-large'
  | 'too-slow'
  | 'scan-missing'
  | 'scan-not-fetched'
  | 'scan-not-kept'
  | 'scan-not-laid'
  | 'scan-no-frame'
  | 'scan-numbered'
  | 'tooth-missing'
  | 'tray-columns'
  | 'tray-row'
  | 'tray-empty'
  | 'colour-table'
  | 'day-invalid'
  | 'hours-overlap'
  | 'no-working-day'
  | 'interval-cycle'
  | 'nothing-missing'
  | 'shade-without-data'
  | 'stock-columns'
  | 'stock-row'
  | 'calendar-broken';

/** A typed refusal: a code for programs, a sentence for people, and what was received. */
export class Refusal extends Error {
  constructor(
    readonly code: RefusalCode,
    sentence: string,
    readonly received?: unknown,
  ) {
    super(sentence);
    this.name = 'Refusal';
  }
}
