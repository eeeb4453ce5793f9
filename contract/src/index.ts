export * from './cases.js';
export * from './contours.js';
export * from './people.js';
export * from './problem.js';
export * from './records.js';
export * from './role.js';
export * from './sections.js';
export * from './validation.js';
