const MB = 1024 * 1024;

/** A photograph, or anything that a device lays into the watched folder, has at most so many bytes. House limit. */
export const PHOTO_MOST_BYTES = 50 * MB;
/** A scan has at most so many bytes: three million triangles in binary STL are 150 MB. House limit. */
export const SCAN_MOST_BYTES = 180 * MB;
/** The name of a case has at most so many characters. */
export const CASE_NAME_MOST = 80;
/** The name of a file has at most so many characters; what is longer is cut. */
export const FILE_NAME_MOST = 255;

/** Bytes as they are told to people. */
export const megabytes = (bytes: number): string => `${Math.round(bytes / MB)} MB`;

/** What is said of a photograph that is too large. */
export const PHOTO_TOO_LARGE = `The file is larger than ${megabytes(PHOTO_MOST_BYTES)}.`;
/** What is said of a file whose kind is not known yet. */
export const FILE_TOO_LARGE = `The file is too large: photographs may have ${megabytes(PHOTO_MOST_BYTES)}, scans ${megabytes(SCAN_MOST_BYTES)}.`;
