/** As much of the reference library as the tests ask. */
declare module "jstat" {
  const jstat: { studentt: { inv: (p: number, dof: number) => number } };
  export default jstat;
}
