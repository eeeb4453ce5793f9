export { SCAN_PM_MM, SCANNED, SCANNED_SIZE_PM_MM } from './accuracy.js';
export { median } from './middle.js';
export * from './working.js';
