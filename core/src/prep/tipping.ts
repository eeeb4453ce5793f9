/**
 * The greatest taper of a wall, degrees, with which a die still resists being tipped off: in two dimensions, a base b
 * and walls of height h that lean inward by α each, turned about the far margin. The wall resists somewhere while
 * h/b > sin α·cos α, so the limit is α = ½·asin(2h/b); none where h is half of b or more.
 * Derived; the idea of a limiting taper is Parker et al. 1988, J Prosthet Dent 59:281, from memory.
 * @returns undefined where there is no limit
 */
export function tippingLimitDeg(heightMm: number, baseMm: number): number | undefined {
  const twice = (2 * heightMm) / baseMm;
  return twice >= 1 ? undefined : (Math.asin(twice) * 90) / Math.PI;
}
