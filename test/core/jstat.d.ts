/** As much of the reference library as the tests and their reports ask. */
declare module "jstat" {
  const jstat: {
    studentt: { inv: (p: number, dof: number) => number };
    beta: { inv: (p: number, alpha: number, beta: number) => number };
  };
  export default jstat;
}
