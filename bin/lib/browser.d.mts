export const BROWSERS: readonly { readonly package: string; readonly path: string }[];
export function browserPath(): string | undefined;
