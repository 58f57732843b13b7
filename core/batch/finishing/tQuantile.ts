/**
 * Quantiles of Student's t: how far the mean of a small sample may lie from the truth. By the expansion of G. W. Hill, "Algorithm 396: Student's
 * t-quantiles", Communications of the ACM 13 (1970), with one or two degrees of freedom in closed form; checked against a reference library.
 */

/** The standard normal's, by P. J. Acklam's rational approximation (relative error below 1.2e-9, from memory); upper half only. */
function normalQuantile(p: number): number {
  const q = p - 0.5;
  if (p <= 0.97575) {
    const r = q * q;
    return (
      ((((((-39.69683028665376 * r + 220.9460984245205) * r - 275.9285104469687) * r + 138.357751867269) * r - 30.66479806614716) * r +
        2.506628277459239) *
        q) /
      (((((-54.47609879822406 * r + 161.5858368580409) * r - 155.6989798598866) * r + 66.80131188771972) * r - 13.28068155288572) * r + 1)
    );
  }
  const r = Math.sqrt(-2 * Math.log(1 - p));
  return -(
    (((((-0.007784894002430293 * r - 0.3223964580411365) * r - 2.400758277161838) * r - 2.549732539343734) * r + 4.374664141464968) * r +
      2.938163982698783) /
    ((((0.007784695709041462 * r + 0.3224671290700398) * r + 2.445134137142996) * r + 3.754408661907416) * r + 1)
  );
}

/**
 * @param p 0.5 to 1; @param n degrees of freedom, at least one
 * @example tQuantile(0.975, 11).toFixed(3) // "2.201"
 */
export function tQuantile(p: number, n: number): number {
  const two = 2 * (1 - p);
  if (n === 1) return 1 / Math.tan((two * Math.PI) / 2);
  if (n === 2) return Math.sqrt(2 / (two * (2 - two)) - 2);
  const a = 1 / (n - 0.5);
  const b = (48 / a) * (1 / a);
  let c = ((20700 * a) / b - 98) * a - 16;
  c = c * a + 96.36;
  const d = ((94.5 / (b + c) - 3) / b + 1) * Math.sqrt((a * Math.PI) / 2) * n;
  let x = d * two;
  let y = x ** (2 / n);
  if (y > 0.05 + a) {
    x = normalQuantile(p);
    y = x * x;
    if (n < 5) c += 0.3 * (n - 4.5) * (x + 0.6);
    c = (((0.05 * d * x - 5) * x - 7) * x - 2) * x + b + c;
    y = (((((0.4 * y + 6.3) * y + 36) * y + 94.5) / c - y - 3) / b + 1) * x;
    y = Math.expm1(a * y * y);
  } else {
    y = ((1 / (((n + 6) / (n * y) - 0.089 * d - 0.822) * (n + 2) * 3) + 0.5 / (n + 4)) * y - 1) * ((n + 1) / (n + 2)) + 1 / y;
  }
  return Math.sqrt(n * y);
}
