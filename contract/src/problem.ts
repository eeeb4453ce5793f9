import type { SectionState } from './cases.js';

/** Problem details (RFC 9457) with our own members. `detail` is one sentence for people. */
export interface Problem {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail: string;
  /** Field by field, where a form was refused. */
  readonly errors?: readonly { readonly field: string; readonly message: string }[];
  /** The section as it stands now, where a change came too late. */
  readonly current?: SectionState;
}
