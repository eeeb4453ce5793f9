import type { Source } from './working.js';

// How exact a scan is, once. A figure that is read off it carries one of these and no other.

/** Accuracy of a scanned surface, half-width of the 95 % interval, mm. Common practice, no source. */
export const SCAN_PM_MM = 0.05;

/**
 * Accuracy of a tooth's width or length read off a scan, half-width of the 95 % interval, mm: both its ends are
 * surfaces, and contacts and gum hide some of them. House value from virtual scans (see the test of the same name).
 */
export const SCANNED_SIZE_PM_MM = 0.1;

/** Where a size comes from that was read off a scan. */
export const SCANNED: Source = { mark: 'measured', text: 'measured on the scan of this case' };
