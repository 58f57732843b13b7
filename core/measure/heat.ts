/** Warmth, in the two ways people say it. 0 °C is 32 °F and a degree Celsius 1.8 of Fahrenheit's (NIST SP 811, Appendix B.8). */

/** @example celsiusOf(130, "F").toFixed(1) // "54.4" */
export const celsiusOf = (n: number, unit: "C" | "F"): number => (unit === "F" ? ((n - 32) * 5) / 9 : n);

/** @example fahrenheitOf(54) // 129.2 */
export const fahrenheitOf = (celsius: number): number => (celsius * 9) / 5 + 32;
